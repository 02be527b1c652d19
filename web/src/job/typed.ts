// A job as it stands in the fields: text, exactly as typed. What a field does not show is kept from the job as it came.
import type { JobFile } from '../lib/api/client';

export interface TypedExtra {
  name: string;
  size: string;
  weight: string;
}

export interface Typed {
  title: string;
  name: string;
  length: string;
  width: string;
  height: string;
  weight: string;
  gap: string;
  extras: TypedExtra[];
  to: string;
  from: string;
  residential: boolean;
  value: string;
  day: string;
  board: string;
  school: 'exact' | 'thumb';
}

/** A measure as text: a number in a file is millimetres or grams. */
function text(value: string | number | null | undefined, unit: 'mm' | 'g'): string {
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
  const length = (value: string | number | null | undefined) => short(text(value, 'mm'), units);
  const mass = (value: string | number | null | undefined) => short(text(value, 'g'), massUnit);
  const part = job.parts?.[0];
  const shape = part?.shape?.kind === 'box' ? part.shape : undefined;
  return {
    title: job.title,
    name: part?.name ?? '',
    length: length(shape?.length),
    width: length(shape?.width),
    height: length(shape?.height),
    weight: mass(part?.weight),
    gap: length(part?.gap),
    extras: (job.extras ?? []).map((extra) => ({
      name: extra.name,
      size: Array.isArray(extra.size)
        ? extra.size.map((side) => text(side, 'mm')).join(' x ')
        : short(extra.size ?? '', units),
      weight: mass(extra.weight),
    })),
    to: job.ship?.to ?? '',
    from: job.ship?.from ?? '',
    residential: job.ship?.residential ?? false,
    value: job.value ?? '',
    day: job.day ?? '',
    board: job.board ?? '',
    school: job.school,
  };
}

export function toJob(typed: Typed, base: JobFile): JobFile {
  const part = base.parts?.[0];
  const orNothing = (said: string) => (said.trim() === '' ? null : said);
  return {
    ...base,
    title: typed.title,
    day: orNothing(typed.day),
    ship: { from: orNothing(typed.from), to: orNothing(typed.to), residential: typed.residential },
    value: orNothing(typed.value),
    board: orNothing(typed.board),
    school: typed.school,
    parts: [
      {
        count: 1,
        ...part,
        name: typed.name,
        weight: orNothing(typed.weight),
        gap: orNothing(typed.gap),
        shape: {
          kind: 'box',
          length: orNothing(typed.length),
          width: orNothing(typed.width),
          height: orNothing(typed.height),
        },
      },
    ],
    extras: typed.extras
      .filter((extra) => extra.name || extra.size || extra.weight)
      .map((extra) => ({ name: extra.name, size: orNothing(extra.size), weight: orNothing(extra.weight) })),
  };
}
