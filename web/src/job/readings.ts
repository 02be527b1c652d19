// Readings of a tape or a scale come into the field that has the focus, where it takes that kind of measure.
import { live } from '../lib/live.svelte';
import { toast } from '../lib/toast.svelte';

interface Reading {
  device: 'tape' | 'scale';
  reading: string;
  state: 'settled' | 'settling' | 'overload';
}

const TAKES = { tape: 'length', scale: 'mass' } as const;

function take({ device, reading, state }: Reading): void {
  live.show(device, reading, state);
  if (state !== 'settled') return;
  const at = document.activeElement;
  if (!(at instanceof HTMLInputElement) || at.dataset.measure !== TAKES[device]) {
    const field = device === 'tape' ? 'a length' : 'a weight';
    toast.show(`The ${device} says ${reading}. Put the cursor into a field for ${field}, and read again.`);
    return;
  }
  at.value = reading;
  at.dispatchEvent(new Event('input', { bubbles: true }));
  // As if Enter had been pressed: the hand is on the tape.
  at.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
}

/**
 * Listens for as long as the page is open and looked at; gives back what ends it. A page behind another does not listen:
 * a reading belongs to the one in sight, and a browser keeps only a few connections to one place.
 */
export function listen(): () => void {
  let stream: EventSource | null = null;
  const look = () => {
    if (document.visibilityState === 'hidden') {
      stream?.close();
      stream = null;
    } else if (!stream) {
      stream = new EventSource('/api/devices/stream');
      stream.onmessage = (event: MessageEvent<string>) => take(JSON.parse(event.data) as Reading);
    }
  };
  look();
  document.addEventListener('visibilitychange', look);
  return () => {
    document.removeEventListener('visibilitychange', look);
    stream?.close();
  };
}
