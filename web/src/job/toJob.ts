// What is typed, as the job that the shop reads.
import type { JobFile, LayerEntry, PartEntry } from '../lib/api/client';
import { asked } from './shapes';
import { PLACES, type Typed, type TypedInsert, type TypedLayer, type TypedPart } from './typed';

type Shape = PartEntry['shape'];

const orNothing = (said: string | undefined) => (said?.trim() ? said : null);

function toLayer(layer: TypedLayer): LayerEntry {
  const lengths = layer.lengths.split(/[,;]/).filter((one) => one.trim());
  return {
    material: layer.material,
    layers: layer.layers.trim() || 1,
    crossed: layer.crossed,
    across: layer.crossed ? orNothing(layer.across) : null,
    reused: layer.reused,
    room: orNothing(layer.room),
    hollow: orNothing(layer.hollow),
    lengths: lengths.length ? lengths.map((one) => one.trim()) : null,
    bubbles: layer.bubbles || null,
    on: layer.on,
    each: layer.each,
    item: orNothing(layer.item),
    open: layer.open,
  };
}

function toGap(part: TypedPart): PartEntry['gap'] {
  const said = PLACES.filter((place) => part.gapBy[place].trim());
  if (!said.length) return orNothing(part.gap);
  return {
    wall: orNothing(part.gap),
    ...Object.fromEntries(said.map((place) => [place, part.gapBy[place]])),
  };
}

export function toPart(part: TypedPart): PartEntry {
  const measures = Object.fromEntries(
    asked(part.kind).map(({ name }) => [name, orNothing(part.measures[name] ?? '')]),
  );
  return {
    name: part.name,
    count: part.count.trim() || 1,
    weight: orNothing(part.weight),
    gap: toGap(part),
    fragility: orNothing(part.fragility),
    proven: part.proven,
    shape: {
      ...EMPTY[part.kind],
      ...shapePoints(part),
      kind: part.kind,
      ...measures,
    } as Shape,
    protect: part.protect.map(toLayer),
    rules: {
      this_side_up: part.thisSideUp,
      keep_flat: part.keepFlat,
      no_load_on_top: part.noLoadOnTop,
      hard_edges: part.hardEdges,
      bears: orNothing(part.bears),
      bundle: part.bundle ?? '',
      cushion_for: part.cushionFor ?? '',
      apart_from: (part.apartFrom ?? '')
        .split(',')
        .map((name) => name.trim())
        .filter(Boolean),
      not_with: (part.notWith ?? '')
        .split(',')
        .map((name) => name.trim())
        .filter(Boolean),
    },
    piles: orNothing(part.piles),
    sleeve_holds: orNothing(part.sleeveHolds),
    photos: part.photos,
    guessed: part.guessed,
    off_by: part.offBy,
  };
}

// What a shape by points has before any point was given.
const EMPTY: Record<string, object> = {
  outline: { points: [] },
  bars: { members: [] },
  compound: { of: [] },
  mesh: { file: '' },
};

function shapePoints(part: TypedPart): object {
  const shape = part.shape as unknown as Record<string, unknown>;
  if (shape.kind !== part.kind) return {};
  const kept = ['points', 'holes', 'members', 'of', 'file'].filter((name) => name in shape);
  return Object.fromEntries(kept.map((name) => [name, shape[name]]));
}

/** All of it as it was typed: the shop reads what its kind asks for. */
const toInsert = (typed: TypedInsert): NonNullable<JobFile['inserts']>[number] => ({
  kind: typed.kind,
  count: typed.count.trim() || 1,
  where: typed.where,
  along: orNothing(typed.along),
  across: orNothing(typed.across),
  size: orNothing(typed.size),
  length: orNothing(typed.length),
  depth: orNothing(typed.depth),
});

export function toJob(typed: Typed, base: JobFile): JobFile {
  return {
    ...base,
    title: typed.title,
    day: orNothing(typed.day),
    ship: {
      from: orNothing(typed.from),
      to: orNothing(typed.to),
      residential: typed.residential,
      signature: typed.signature,
      distance: orNothing(typed.distance ?? ''),
      from_country: typed.fromCountry.trim().toUpperCase(),
      to_country: typed.toCountry.trim().toUpperCase(),
    },
    channel: orNothing(typed.channel),
    label: typed.label.carrier.trim()
      ? { carrier: typed.label.carrier, most_weight: orNothing(typed.label.mostWeight) }
      : null,
    wishes: {
      days_at_most: orNothing(typed.wishes.days) as number | null,
      sides_sum_at_most: orNothing(typed.wishes.sides),
      parcel_weight_at_most: orNothing(typed.wishes.weight ?? ''),
    },
    parcels_at_most: typed.parcelsAtMost ?? 1,
    rules_left_out: typed.rulesLeftOut ?? [],
    sale: typed.sale && (typed.sale.price.trim() || typed.sale.postage.trim()) ? { ...typed.sale } : null,
    plain_outside: typed.plainOutside ?? false,
    wet_weather: typed.wetWeather ?? false,
    repacked: typed.repacked ?? false,
    pack_minutes: orNothing(typed.packMinutes ?? '') as number | null,
    checklist: (typed.checklist ?? '')
      .split('\n')
      .map((line) => line.trim())
      .filter(Boolean),
    customs: typed.toCountry.trim()
      ? {
          contents: typed.customs.contents,
          reason: typed.customs.reason,
          made_in: typed.customs.madeIn.trim().toUpperCase(),
          tariff_code: typed.customs.tariffCode,
        }
      : null,
    value: orNothing(typed.value),
    board: orNothing(typed.board),
    school: typed.school,
    parts: typed.parts.map(toPart),
    extras: typed.extras
      .filter((extra) => extra.name || extra.size || extra.weight)
      .map((extra) => ({
        name: extra.name,
        size: orNothing(extra.size),
        weight: orNothing(extra.weight),
        lies_flat: extra.liesFlat ?? null,
        place: extra.place ?? null,
      })),
    beside: (typed.beside ?? []).map((parcel) => ({
      name: parcel.name,
      size: orNothing(parcel.size),
      weight: orNothing(parcel.weight),
      value: orNothing(parcel.value),
    })),
    take_apart: typed.steps,
    answers: typed.answers,
    liner: typed.liner ? toLayer(typed.liner) : null,
    inserts: typed.inserts.map(toInsert),
    hand_holes: typed.handHoles,
    pressed: orNothing(typed.pressed),
    fill: {
      kind: typed.fill.kind,
      places: Object.fromEntries(Object.entries(typed.fill.places).filter(([, kind]) => kind)),
      full: typed.fill.full || null,
      loose: typed.fill.loose,
    },
    found_boxes: (typed.foundBoxes ?? []).map((box) => ({
      name: box.name,
      inside: orNothing(box.inside),
      board: orNothing(box.board),
      worn: box.worn as NonNullable<NonNullable<JobFile['found_boxes']>[number]['worn']>,
      hollow: orNothing(box.hollow),
    })),
    over_box: typed.overBox ? toLayer(typed.overBox) : null,
    bundles: Object.fromEntries(
      Object.entries(typed.bundles ?? {})
        .filter(([, layers]) => layers.length)
        .map(([name, layers]) => [name, layers.map(toLayer)]),
    ),
  };
}
