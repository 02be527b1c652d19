// Where a field of the job file is typed: its station, and the id it has there.
import type { Station } from '../lib/router.svelte';
import type { Typed } from './typed';

export interface Place {
  station: Station;
  id: string;
  /** What a packer calls it. */
  says: string;
}

const ONE: Record<string, [Station, string, string]> = {
  'ship.to': ['measure', 'to', 'Destination postcode'],
  'ship.from': ['measure', 'from', 'Origin postcode'],
  'ship.distance': ['measure', 'distance', 'Driving distance'],
  value: ['measure', 'value', 'Declared value'],
  pressed: ['box', 'pressed', 'Press goods in by'],
};

const inWords = (name: string) => name.replaceAll('_', ' ');

/** Where a field is typed, or nothing where no field of a screen is it. */
export function placeOf(field: string, typed: Typed): Place | null {
  const one = ONE[field];
  if (one) return { station: one[0], id: one[1], says: one[2] };
  const rows = /^(parts|extras|beside|found_boxes|inserts)\[(\d+)\]\.?(.*)$/.exec(field);
  if (!rows) return null;
  const [, list = '', number = '', rest = ''] = rows;
  const n = Number(number);
  if (list === 'extras' || list === 'beside') {
    const row = list === 'extras' ? 'extra' : 'parcel';
    return { station: 'measure', id: `${row}-${n}-${rest}`, says: `${inWords(rest)} of ${row} ${n + 1}` };
  }
  if (list === 'found_boxes')
    return { station: 'box', id: `found-${n}-${rest}`, says: `${inWords(rest)} of box ${n + 1}` };
  if (list === 'inserts') return { station: 'box', id: `insert-${n}-${rest}`, says: `insert ${n + 1}` };
  const name = typed.parts[n]?.name.trim() || `part ${n + 1}`;
  const measure = /^(?:shape\.)?(\w+)$/.exec(rest)?.[1] ?? '';
  const shown = rest.startsWith('shape.') || ['weight', 'count'].includes(rest);
  return shown && measure
    ? { station: 'measure', id: `part-${n}-${measure}`, says: `${inWords(measure)} of ${name}` }
    : { station: 'protect', id: `wrap-${n}`, says: `${inWords(rest.split(/[[.]/)[0] ?? '')} of ${name}` };
}
