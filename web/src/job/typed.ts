// A job as it stands in the fields: text, exactly as typed. What a field does not show is kept from the job as it came.
import type { ExtraEntry, JobFile, LayerEntry, PartEntry, StepEntry } from '../lib/api/client';
import { asked } from './shapes';

type Shape = PartEntry['shape'];

export interface TypedExtra {
  name: string;
  size: string;
  weight: string;
  /** Folded or on top, so that it sizes no box; null while nobody said. */
  liesFlat?: boolean | null;
  /** Where it goes; null while nobody said. */
  place?: ExtraPlace | null;
}

/** Where an extra goes: only beside the goods it takes up room. */
export type ExtraPlace = NonNullable<ExtraEntry['place']>;

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
  /** Of those that go in another parcel. */
  notWith: string;
  piles: string;
  sleeveHolds: string;
  photos: string[];
  guessed: boolean;
  offBy: string | null;
  /** The shape as it came or was drawn, for what is not known by measures alone. */
  shape: Shape;
}

export type CustomsReason = 'sale' | 'gift' | 'return' | 'repair' | 'sample';

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
  /** By how much the goods are pressed in, each way. */
  pressed: string;
  foundBoxes: TypedFoundBox[];
  /** Where it was sold, by the shop's name for it; a label of its own that the sale gave. */
  channel: string;
  label: { carrier: string; mostWeight: string };
  wishes: { days: string; sides: string; weight: string };
  parcelsAtMost: number;
  /** Names of house rules that this job leaves out. */
  rulesLeftOut: string[];
  fromCountry: string;
  toCountry: string;
  /** What it sold for, and what the buyer paid for postage. */
  sale: { price: string; postage: string };
  /** Nothing outside tells what is in it. */
  plainOutside: boolean;
  /** Rain on the way; others open it and pack it again. */
  wetWeather: boolean;
  repacked: boolean;
  /** To place, fill, close and label; empty for the shop's usual. */
  packMinutes: string;
  /** Checks of its own before it is closed, one a line. */
  checklist: string;
  customs: { contents: string; reason: CustomsReason; madeIn: string; tariffCode: string };
  /** What fills the room that is left: a kind, others by place, and how full; nothing where it follows by itself. */
  fill: { kind: string; places: Record<string, string>; full: '' | 'firm' | 'soft'; loose: boolean | null };
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
    notWith: '',
    piles: '',
    sleeveHolds: '',
    photos: [],
    guessed: false,
    offBy: null,
    shape: { kind: 'box' },
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
