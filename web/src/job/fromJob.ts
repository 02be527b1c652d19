// A job as it came, put into its fields as text.
import { written } from '../lib/written';
import type { JobFile, LayerEntry, PartEntry } from '../lib/api/client';
import { asked } from './shapes';
import { blankPart, PLACES, type Place, type Typed, type TypedLayer, type TypedPart } from './typed';

type Shape = PartEntry['shape'];
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
    hollow: sizes(entry.hollow),
    lengths: (entry.lengths ?? []).map((one) => length(one)).join(', '),
    bubbles: entry.bubbles ?? '',
    on: entry.on ?? 'all',
    each: entry.each ?? false,
    item: entry.item ?? '',
    open: entry.open ?? false,
  });

  const part = (entry: PartEntry): TypedPart => {
    const shape = (entry.shape ?? { kind: 'box' }) as Record<string, unknown>;
    const kind = written(shape.kind ?? 'box');
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
      notWith: (entry.rules?.not_with ?? []).join(', '),
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
      place: extra.place ?? null,
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
    pressed: length(job.pressed),
    foundBoxes: (job.found_boxes ?? []).map((entry) => ({
      name: entry.name ?? '',
      inside: sizes(entry.inside as string | Said[] | null | undefined),
      board: entry.board ?? '',
      worn: entry.worn ?? [],
      hollow: sizes(entry.hollow as string | Said[] | null | undefined),
    })),
    channel: job.channel ?? '',
    label: { carrier: job.label?.carrier ?? '', mostWeight: mass(job.label?.most_weight) },
    wishes: {
      days: String(job.wishes?.days_at_most ?? ''),
      sides: length(job.wishes?.sides_sum_at_most),
      weight: mass(job.wishes?.parcel_weight_at_most),
    },
    parcelsAtMost: job.parcels_at_most ?? 1,
    rulesLeftOut: job.rules_left_out ?? [],
    fromCountry: job.ship?.from_country ?? '',
    toCountry: job.ship?.to_country ?? '',
    sale: { price: job.sale?.price ?? '', postage: job.sale?.postage ?? '' },
    plainOutside: job.plain_outside ?? false,
    wetWeather: job.wet_weather ?? false,
    repacked: job.repacked ?? false,
    packMinutes: String(job.pack_minutes ?? ''),
    checklist: (job.checklist ?? []).join('\n'),
    customs: {
      contents: job.customs?.contents ?? '',
      reason: job.customs?.reason ?? 'sale',
      madeIn: job.customs?.made_in ?? '',
      tariffCode: job.customs?.tariff_code ?? '',
    },
    fill: {
      kind: job.fill?.kind ?? '',
      places: { ...job.fill?.places },
      full: job.fill?.full ?? '',
      loose: job.fill?.loose ?? null,
    },
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

/** A gap as the job has it: one length, or lengths by place. */
function gapOf(gap: PartEntry['gap'], length: (value: Said) => string): Pick<TypedPart, 'gap' | 'gapBy'> {
  const by = typeof gap === 'object' && gap !== null ? gap : { wall: gap };
  const places = by as Partial<Record<Place | 'wall', Said>>;
  return {
    gap: length(places.wall),
    gapBy: Object.fromEntries(PLACES.map((place) => [place, length(places[place])])) as Record<Place, string>,
  };
}
