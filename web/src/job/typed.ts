// A job as it stands in the fields: text, exactly as typed. What a field does not show is kept from the job as it came.
import type { JobFile, LayerEntry, PartEntry, StepEntry } from '../lib/api/client';
import { asked } from './shapes';

type Shape = PartEntry['shape'];

export interface TypedExtra {
  name: string;
  size: string;
  weight: string;
  /** Folded or on top, so that it sizes no box; null while nobody said. */
  liesFlat?: boolean | null;
}

/** Where a gap can be said by itself, beside the walls. */
export const PLACES = ['between', 'below', 'above', 'edges', 'faces'] as const;
export type Place = (typeof PLACES)[number];

/** A parcel of the job that is closed already and goes with it. */
export interface TypedBeside extends TypedExtra {
  value: string;
}

export interface TypedLayer {
  material: string;
  layers: string;
  crossed: boolean;
  across: string;
  reused: boolean;
  room: string;
  hollow: string;
  lengths: string;
  bubbles: '' | 'in' | 'out';
  /** The side it covers, or all of them. */
  on: NonNullable<LayerEntry['on']>;
  /** On every piece, before they are piled. */
  each: boolean;
  /** The box or mailer that is there, which it is. */
  item: string;
  open: boolean;
}

/** A used box that is there for this job. */
export interface TypedFoundBox {
  name: string;
  inside: string;
  board: string;
  worn: string[];
  hollow: string;
}

export const blankFoundBox = (): TypedFoundBox => ({ name: '', inside: '', board: '', worn: [], hollow: '' });

export interface TypedInsert {
  kind: NonNullable<JobFile['inserts']>[number]['kind'];
  count: string;
  where: 'below' | 'above' | 'both';
  along: string;
  across: string;
  size: string;
  length: string;
  depth: string;
}

export interface TypedPart {
  /** Its own for as long as the window is open. */
  key: number;
  name: string;
  count: string;
  kind: string;
  /** By the name of the measure; those of other shapes stay, for when the shape is changed back. */
  measures: Record<string, string>;
  weight: string;
  /** Everywhere, or to the walls where it is said by place. */
  gap: string;
  gapBy: Record<Place, string>;
  fragility: string;
  proven: string;
  protect: TypedLayer[];
  thisSideUp: boolean;
  keepFlat: boolean;
  noLoadOnTop: boolean;
  hardEdges: boolean;
  bears: string;
  bundle: string;
  /** The part it lies in front of and behind, as its cushion. */
  cushionFor: string;
  /** Names, with commas between. */
  apartFrom: string;
  piles: string;
  sleeveHolds: string;
  photos: string[];
  guessed: boolean;
  offBy: string | null;
  /** The shape as it came or was drawn, for what is not known by measures alone. */
  shape: Shape;
}

export interface Typed {
  title: string;
  parts: TypedPart[];
  extras: TypedExtra[];
  beside: TypedBeside[];
  steps: StepEntry[];
  answers: Record<string, string>;
  liner: TypedLayer | null;
  inserts: TypedInsert[];
  handHoles: boolean;
  foundBoxes: TypedFoundBox[];
  /** What goes around a closed box in a bag or an envelope. */
  overBox: TypedLayer | null;
  /** What goes around parts held together, by the name of their bundle. */
  bundles: Record<string, TypedLayer[]>;
  to: string;
  from: string;
  residential: boolean;
  signature: boolean;
  distance: string;
  value: string;
  day: string;
  board: string;
  school: 'exact' | 'thumb';
}

type Said = string | number | null | undefined;

/** A measure as text: a number in a file is millimetres or grams. */
function text(value: Said, unit: 'mm' | 'g'): string {
  if (value === null || value === undefined) return '';
  return typeof value === 'number' ? `${value} ${unit}` : value;
}

/** Without the shop's own unit where it stands last: the field's label says it. */
function short(said: string, unit: string): string {
  const bare = said.endsWith(` ${unit}`) ? said.slice(0, -unit.length - 1) : said;
  return /^[\d\s./x-]+$/.test(bare) ? bare : said;
}

let keys = 0;

export function blankPart(): TypedPart {
  keys += 1;
  return {
    key: keys,
    name: '',
    count: '1',
    kind: 'box',
    measures: {},
    weight: '',
    gap: '',
    gapBy: { between: '', below: '', above: '', edges: '', faces: '' },
    fragility: '',
    proven: '',
    protect: [],
    thisSideUp: false,
    keepFlat: false,
    noLoadOnTop: false,
    hardEdges: false,
    bears: '',
    bundle: '',
    cushionFor: '',
    apartFrom: '',
    piles: '',
    sleeveHolds: '',
    photos: [],
    guessed: false,
    offBy: null,
    shape: { kind: 'box' } as Shape,
  };
}

export function blankLayer(material: string): TypedLayer {
  return {
    material,
    layers: '1',
    crossed: false,
    across: '',
    reused: false,
    room: '',
    hollow: '',
    lengths: '',
    bubbles: '',
    on: 'all',
    each: false,
    item: '',
    open: false,
  };
}

/** Whether nothing was typed in it. */
export const isBlank = (part: TypedPart): boolean =>
  !part.name.trim() &&
  !part.weight.trim() &&
  part.kind === 'box' &&
  !asked('box').some((a) => part.measures[a.name]?.trim());

export function toTyped(job: JobFile, units: 'in' | 'cm'): Typed {
  const massUnit = units === 'in' ? 'lb' : 'kg';
  const length = (value: Said) => short(text(value, 'mm'), units);
  const mass = (value: Said) => short(text(value, 'g'), massUnit);
  const sizes = (value: string | Said[] | null | undefined) =>
    Array.isArray(value) ? value.map((side) => text(side, 'mm')).join(' x ') : short(value ?? '', units);

  const layer = (entry: LayerEntry): TypedLayer => ({
    material: entry.material,
    layers: String(entry.layers ?? 1),
    crossed: entry.crossed ?? false,
    across: entry.across ? String(entry.across) : '',
    reused: entry.reused ?? false,
    room: length(entry.room),
    hollow: sizes(entry.hollow as string | Said[] | null | undefined),
    lengths: (entry.lengths ?? []).map((one) => length(one)).join(', '),
    bubbles: entry.bubbles ?? '',
    on: entry.on ?? 'all',
    each: entry.each ?? false,
    item: entry.item ?? '',
    open: entry.open ?? false,
  });

  const part = (entry: PartEntry): TypedPart => {
    const shape = (entry.shape ?? { kind: 'box' }) as Record<string, unknown>;
    const kind = String(shape.kind ?? 'box');
    return {
      ...blankPart(),
      name: entry.name ?? '',
      count: String(entry.count ?? 1),
      kind,
      // The unit of a mesh is told with its unit.
      measures: Object.fromEntries(
        asked(kind).map(({ name }) => [
          name,
          name === 'unit' ? text(shape[name] as Said, 'mm') : length(shape[name] as Said),
        ]),
      ),
      weight: mass(entry.weight),
      ...gapOf(entry.gap, length),
      fragility: entry.fragility ?? '',
      proven: entry.proven ?? '',
      protect: (entry.protect ?? []).map(layer),
      thisSideUp: entry.rules?.this_side_up ?? false,
      keepFlat: entry.rules?.keep_flat ?? false,
      noLoadOnTop: entry.rules?.no_load_on_top ?? false,
      hardEdges: entry.rules?.hard_edges ?? false,
      bears: mass(entry.rules?.bears),
      bundle: entry.rules?.bundle ?? '',
      cushionFor: entry.rules?.cushion_for ?? '',
      apartFrom: (entry.rules?.apart_from ?? []).join(', '),
      piles: entry.piles ? String(entry.piles) : '',
      sleeveHolds: entry.sleeve_holds ? String(entry.sleeve_holds) : '',
      photos: entry.photos ?? [],
      guessed: entry.guessed ?? false,
      offBy: entry.off_by ?? null,
      shape: shape as unknown as Shape,
    };
  };

  const parts = (job.parts ?? []).map(part);
  return {
    title: job.title ?? '',
    parts: parts.length ? parts : [blankPart()],
    extras: (job.extras ?? []).map((extra) => ({
      name: extra.name ?? '',
      size: sizes(extra.size as string | Said[] | null | undefined),
      weight: mass(extra.weight),
      liesFlat: extra.lies_flat ?? null,
    })),
    beside: (job.beside ?? []).map((parcel) => ({
      name: parcel.name ?? '',
      size: sizes(parcel.size as string | Said[] | null | undefined),
      weight: mass(parcel.weight),
      value: parcel.value ?? '',
    })),
    steps: job.take_apart ?? [],
    answers: job.answers ?? {},
    liner: job.liner ? layer(job.liner) : null,
    inserts: (job.inserts ?? []).map((entry) => ({
      kind: entry.kind,
      count: String(entry.count ?? 1),
      where: entry.where ?? 'below',
      along: entry.along ? String(entry.along) : '',
      across: entry.across ? String(entry.across) : '',
      size: sizes(entry.size as string | Said[] | null | undefined),
      length: length(entry.length),
      depth: length(entry.depth),
    })),
    handHoles: job.hand_holes ?? false,
    foundBoxes: (job.found_boxes ?? []).map((entry) => ({
      name: entry.name ?? '',
      inside: sizes(entry.inside as string | Said[] | null | undefined),
      board: entry.board ?? '',
      worn: entry.worn ?? [],
      hollow: sizes(entry.hollow as string | Said[] | null | undefined),
    })),
    overBox: job.over_box ? layer(job.over_box) : null,
    bundles: Object.fromEntries(
      Object.entries(job.bundles ?? {}).map(([name, layers]) => [name, layers.map(layer)]),
    ),
    to: job.ship?.to ?? '',
    from: job.ship?.from ?? '',
    residential: job.ship?.residential ?? false,
    signature: job.ship?.signature ?? false,
    distance: job.ship?.distance ?? '',
    value: job.value ?? '',
    day: job.day ?? '',
    board: job.board ?? '',
    school: job.school ?? 'exact',
  };
}

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

/** A gap as the job has it: one length, or lengths by place. */
function gapOf(gap: PartEntry['gap'], length: (value: Said) => string): Pick<TypedPart, 'gap' | 'gapBy'> {
  const by = typeof gap === 'object' && gap !== null ? gap : { wall: gap };
  const places = by as Partial<Record<Place | 'wall', Said>>;
  return {
    gap: length(places.wall),
    gapBy: Object.fromEntries(PLACES.map((place) => [place, length(places[place])])) as Record<Place, string>,
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

export function blankInsert(kind: TypedInsert['kind'], count: number): TypedInsert {
  return {
    kind,
    count: String(count),
    where: 'below',
    along: '',
    across: '',
    size: '',
    length: '',
    depth: '',
  };
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
    },
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
