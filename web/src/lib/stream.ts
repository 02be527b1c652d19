// What the shop tells an open page by itself: what devices read, and what was changed from elsewhere. One stream for all
// of a page, as a browser keeps only a few connections to one place.
import type { Schemas } from './api/client';

export type Reading = Required<Schemas['Reading']>;

export interface ShopChanged {
  jobs: { id: string; revision: number; change: string }[];
  /** The settings or a tariff. */
  settings: boolean;
  /** A tick, a closed parcel, a recipient, a cut or a label. */
  at_the_bench: boolean;
  /** All of it may be another. */
  whole: boolean;
}

interface Told {
  reading: Reading;
  changed: ShopChanged;
}
type Takers = { [K in keyof Told]: Set<(told: Told[K]) => void> };

/** What a page that did not listen for a while must take for changed. */
const MISSED: ShopChanged = { jobs: [], settings: true, at_the_bench: true, whole: true };

const takers: Takers = { reading: new Set(), changed: new Set() };
let source: EventSource | null = null;
let missed = false;

const tell = <K extends keyof Told>(what: K, told: Told[K]): void => {
  for (const take of takers[what]) take(told);
};

/** A page behind another does not listen: a reading belongs to the one in sight. */
function look(): void {
  const wanted = document.visibilityState !== 'hidden' && takers.reading.size + takers.changed.size > 0;
  if (!wanted) {
    missed ||= source !== null && takers.changed.size > 0;
    source?.close();
    source = null;
  } else if (!source) {
    source = new EventSource('/api/devices/stream');
    source.onopen = () => {
      if (missed) tell('changed', MISSED);
      missed = false;
    };
    source.onerror = () => (missed = true);
    for (const what of ['reading', 'changed'] as const)
      source.addEventListener(what, (event: MessageEvent<string>) =>
        tell(what, JSON.parse(event.data) as Told[typeof what]),
      );
  }
}
document.addEventListener('visibilitychange', look);

/** Has something taken whenever it is told; gives back what ends that. */
export function whenTold<K extends keyof Told>(what: K, take: (told: Told[K]) => void): () => void {
  takers[what].add(take);
  look();
  return () => {
    takers[what].delete(take);
    look();
  };
}
