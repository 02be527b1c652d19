// One key a deed. Keys work while no field has the focus; Escape leaves a field.
import { untrack } from 'svelte';

export interface Key {
  key: string;
  does: string;
  act: () => void;
}

class Keys {
  list = $state<Key[]>([]);
  shown = $state(false);

  constructor() {
    addEventListener('keydown', (event) => this.#pressed(event));
  }

  /** Adds keys; gives back what takes them away again, as an effect wants it. */
  add(keys: Key[]): () => void {
    // Untracked: who adds keys in an effect does not hang on the keys of others.
    untrack(() => (this.list = [...this.list, ...keys]));
    return () => {
      const others = this.list.filter(
        (key) => !keys.some((own) => own.key === key.key && own.does === key.does),
      );
      untrack(() => (this.list = others));
    };
  }

  #pressed(event: KeyboardEvent): void {
    if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
    const at = event.target as HTMLElement;
    const inField = at.matches(
      'input:not([type=radio]):not([type=checkbox]), [role=combobox], [role=listbox], [role=slider], textarea',
    );
    if (inField) {
      if (event.key === 'Escape') at.blur();
      return;
    }
    if (event.key === ' ' && at.closest('button, a, summary, input')) return; // it presses what has the focus
    if (event.key === '?') {
      this.shown = !this.shown;
      event.preventDefault();
      return;
    }
    const found = this.list.find((key) => key.key === event.key);
    if (found && !this.shown) {
      event.preventDefault();
      found.act();
    }
  }
}

export const keys = new Keys();
