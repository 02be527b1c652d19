"""Questions about what can hurt someone or is not taken: battery, fuel, pressure, edge, glass, mercury, dust, origin.

Each answer gives the usual caution, in words that defer to the carrier's list, the law and trained people; what a
service may refuse is marked by the answer's tag. What must not be sent at all says so.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from fardo.core.refusal import BadInput

NONE = "none"


@dataclass(frozen=True, slots=True)
class Tag:
    """What a service may refuse.

    Args:
        code: as tariffs name it.
        says: what it refuses then, in words.
    """

    code: str
    says: str


@dataclass(frozen=True, slots=True)
class HazardAnswer:
    """An answer to a safety question.

    Args:
        code: as it is kept.
        says: as it is chosen.
        caution: shown beside the step, or nothing.
        tag: what a service may refuse.
        never: it does not ship at all, and `caution` says why.
    """

    code: str
    says: str
    caution: str = ""
    tag: Tag | None = None
    never: bool = False


@dataclass(frozen=True, slots=True)
class Question:
    code: str
    asks: str
    answers: tuple[HazardAnswer, ...]

    def answer(self, code: str) -> HazardAnswer:
        """Raises BadInput for an answer there is not."""
        for answer in self.answers:
            if answer.code == code:
                return answer
        raise BadInput(
            "not an answer", read=code, allowed=", ".join(a.code for a in self.answers), field=f"answers.{self.code}"
        )


_LITHIUM = "49 CFR 173.185 and the carrier's own list decide"

QUESTIONS: dict[str, Question] = {
    question.code: question
    for question in (
        Question(
            "battery",
            "Is there a lithium battery in it, or with it?",
            (
                HazardAnswer(NONE, "no battery"),
                HazardAnswer(
                    "installed",
                    "built in",
                    "Battery built in: switched off so that it cannot start by itself, and kept "
                    f"from being crushed. Some services refuse it; {_LITHIUM}.",
                    Tag("lithium-installed", "a lithium battery built in"),
                ),
                HazardAnswer(
                    "packed-with",
                    "packed with it",
                    "Battery packed with the thing: each in a pack of its own, terminals "
                    f"covered, marked as asked. Many services refuse it; {_LITHIUM}.",
                    Tag("lithium-packed", "a lithium battery packed with the thing"),
                ),
                HazardAnswer(
                    "alone",
                    "sent alone",
                    "Battery sent alone: the strictest rules of the three, and most parcel services "
                    f"refuse it; {_LITHIUM}.",
                    Tag("lithium-alone", "a lithium battery sent alone"),
                ),
                HazardAnswer(
                    "damaged",
                    "swollen, wet or recalled",
                    "A damaged, swollen, wet or recalled battery does not ship. Away "
                    "from anything that burns; ask the local waste authority or its maker.",
                    never=True,
                ),
            ),
        ),
        Question(
            "fuel",
            "Has it held fuel or oil?",
            (
                HazardAnswer(NONE, "never"),
                HazardAnswer(
                    "drained",
                    "drained and aired",
                    "Drained, run dry and aired; caps closed, a bag around the tank. Many "
                    "services still refuse what has held fuel; ask first.",
                    Tag("fuel-drained", "what has held fuel"),
                ),
                HazardAnswer(
                    "holds",
                    "still holds some",
                    "With fuel or oil in it, it does not ship. Drain it outdoors, away from "
                    "flame, and hand the fuel in where the law says.",
                    never=True,
                ),
            ),
        ),
        Question(
            "pressure",
            "Is anything in it under pressure?",
            (
                HazardAnswer(NONE, "nothing"),
                HazardAnswer(
                    "spring",
                    "a gas spring or air shock",
                    "Gas springs and air shocks: let down as their maker says, never "
                    "opened; by air the carrier's list decides.",
                    Tag("pressure-spring", "gas springs and air shocks"),
                ),
                HazardAnswer(
                    "cylinder",
                    "a cylinder, inflator or can",
                    "Cylinders, inflators and spray cans: most parcel services "
                    "refuse them. Take them out unless the carrier says in writing that it takes them.",
                    Tag("pressure-cylinder", "cylinders and cans under pressure"),
                ),
            ),
        ),
        Question(
            "blade",
            "Is there a blade, point or toothed edge?",
            (
                HazardAnswer(NONE, "none"),
                HazardAnswer(
                    "sharp",
                    "yes",
                    "Edge first: a guard of board or tube taped on so that it cannot slip, before anything "
                    "else is done. Cut-proof glove while it is bare.",
                ),
            ),
        ),
        Question(
            "glass",
            "Is there glass?",
            (
                HazardAnswer(NONE, "none"),
                HazardAnswer(
                    "plain",
                    "whole, plain",
                    "A grid of low-tack tape on plain glass keeps splinters together if it breaks.",
                ),
                HazardAnswer(
                    "tempered",
                    "whole, tempered",
                    "Tempered glass bursts when its edge is struck: guard the edges first; no "
                    "weight may rest on a corner. Goggles when it is handled bare.",
                ),
                HazardAnswer(
                    "cracked",
                    "cracked",
                    "Cracked glass: gloves and goggles, the pane taped over wholly, and taken out if it "
                    "comes out. Sent cracked, it arrives in pieces.",
                ),
            ),
        ),
        Question(
            "mercury",
            "Is there mercury in it: a tube lamp, switch, old thermometer or barometer?",
            (
                HazardAnswer(NONE, "none"),
                HazardAnswer(
                    "lamp",
                    "a lamp",
                    "Lamps with mercury: out of the fitting, each in a stiff sleeve, sealed bag around it. "
                    "Services limit them; broken ones go to hazardous waste.",
                    Tag("mercury-lamp", "lamps with mercury"),
                ),
                HazardAnswer(
                    "instrument",
                    "a switch or instrument",
                    "Free mercury is not taken by parcel services. A licensed handler "
                    "takes it out, or the thing does not ship.",
                    never=True,
                ),
            ),
        ),
        Question(
            "dust",
            "Is there dust, mould or old insulation on it?",
            (
                HazardAnswer(NONE, "clean"),
                HazardAnswer("dust", "dust", "Dust: a mask, and brushed off outdoors before it is wrapped."),
                HazardAnswer(
                    "mould", "mould", "Mould: mask and gloves; dried and cleaned first, or it spreads inside the wrap."
                ),
                HazardAnswer(
                    "fibre",
                    "old insulation",
                    "Old insulation may be asbestos: it is not touched; someone licensed looks at it first.",
                    never=True,
                ),
            ),
        ),
        Question(
            "origin",
            "Is any of it wildlife, human remains or a cultural good?",
            (
                HazardAnswer(NONE, "none of it"),
                HazardAnswer(
                    "wildlife",
                    "wildlife parts",
                    "Wildlife parts, also old ones (ivory, shell, some woods, bone): lawful origin "
                    "and export papers are the sender's to check, before it is packed.",
                    Tag("wildlife", "wildlife parts"),
                ),
                HazardAnswer(
                    "remains",
                    "human remains",
                    "Human remains: lawful origin, papers and a carrier that takes them are the "
                    "sender's to settle first; most services refuse them.",
                    Tag("human-remains", "human remains"),
                ),
                HazardAnswer(
                    "cultural",
                    "a cultural good",
                    "Cultural goods may need an export licence: the sender checks, and the "
                    "customs description is true even where the outside stays plain.",
                    Tag("cultural", "cultural goods"),
                ),
            ),
        ),
        Question(
            "cover",
            "Is its cover with it?",
            (
                HazardAnswer(NONE, "yes, on it or packed apart"),
                HazardAnswer(
                    "missing",
                    "there is none",
                    "Without its cover it does not travel: nothing keeps the arm and the platter from a blow. Find a "
                    "cover, or board the top over before it is wrapped.",
                    never=True,
                ),
                HazardAnswer(
                    "boarded",
                    "none, the top is boarded over",
                    "The board over the top rests on the plinth's edges and touches neither arm nor spindle.",
                ),
            ),
        ),
        Question(
            "paint",
            "How does the paint stand?",
            (
                HazardAnswer(NONE, "thin and dry, or behind glass"),
                HazardAnswer(
                    "thick",
                    "thick, or soft",
                    "Thick paint: nothing touches the face, no glassine and no bubble. Corner guards hold the stiff "
                    "faces off it.",
                ),
                HazardAnswer(
                    "wet",
                    "not dry yet",
                    "Wet paint does not ship: it takes weeks to months to dry through.",
                    never=True,
                ),
            ),
        ),
        Question(
            "loose-pieces",
            "Are all teeth, pins and small bones in their places?",
            (
                HazardAnswer(NONE, "all of them"),
                HazardAnswer(
                    "bagged",
                    "some are loose, bagged by place",
                    "Loose pieces: each in a bag named by its place, counted on the slip.",
                ),
                HazardAnswer(
                    "lost",
                    "some were lost before",
                    "What was lost before is noted and photographed before it is packed, so that nobody looks for it.",
                ),
            ),
        ),
    )
}


@dataclass(frozen=True, slots=True)
class Hazards:
    """What the answers come to.

    Args:
        open: questions not answered yet.
        cautions: by the question's code.
        never: why it must not be sent at all.
        asked: every question there is, answered or not.
    """

    open: tuple[Question, ...]
    cautions: tuple[tuple[str, str], ...]
    tags: frozenset[str]
    never: tuple[str, ...]
    asked: tuple[str, ...] = ()


NO_HAZARDS = Hazards((), (), frozenset(), ())


def weigh_answers(asked: tuple[str, ...], given: Mapping[str, str]) -> Hazards:
    """What the answers to the questions that are asked come to. Raises BadInput for one there is not."""
    for n, code in enumerate(asked):
        if code not in QUESTIONS:
            raise BadInput("not a question", read=code, allowed=", ".join(QUESTIONS), field=f"questions[{n}]")
    cautions, never, tags = [], [], set[str]()
    for code in asked:
        if code not in given:
            continue
        answer = QUESTIONS[code].answer(given[code])
        if answer.caution:
            cautions.append((code, answer.caution))
        if answer.never:
            never.append(answer.caution)
        if answer.tag:
            tags.add(answer.tag.code)
    waiting = tuple(QUESTIONS[code] for code in asked if code not in given)
    return Hazards(waiting, tuple(cautions), frozenset(tags), tuple(never), asked)


def tags() -> dict[str, Tag]:
    """What a service may refuse, by the code that tariffs have."""
    every = (answer.tag for question in QUESTIONS.values() for answer in question.answers)
    return {tag.code: tag for tag in every if tag is not None}
