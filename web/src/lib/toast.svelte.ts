// A line at the foot of the page that says what was done, and takes it back.
export type Undo = () => unknown;

class Toast {
  text = $state('');
  undo = $state.raw<Undo | null>(null);
  #timer: ReturnType<typeof setTimeout> | undefined;

  show(text: string, undo: Undo | null = null): void {
    clearTimeout(this.#timer);
    this.text = text;
    this.undo = undo;
    this.#timer = setTimeout(() => this.hide(), 12_000);
  }

  hide(): void {
    clearTimeout(this.#timer);
    this.text = '';
    this.undo = null;
  }
}

export const toast = new Toast();
