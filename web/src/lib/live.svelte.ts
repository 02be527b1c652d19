// What the scale shows at this moment, also while it settles; a scale that is silent for a while shows nothing.
const SILENT_AFTER_MS = 10_000;

class Live {
  scale = $state('');
  state = $state<'settled' | 'settling' | 'overload'>('settled');
  #timer: ReturnType<typeof setTimeout> | undefined;

  show(device: string, reading: string, state: 'settled' | 'settling' | 'overload'): void {
    if (device !== 'scale') return;
    this.scale = reading;
    this.state = state;
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => {
      this.scale = '';
      this.state = 'settled';
    }, SILENT_AFTER_MS);
  }
}

export const live = new Live();
