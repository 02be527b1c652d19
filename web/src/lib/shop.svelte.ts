// The shop's settings, read once and after each change of them.
import { calls, type FormChoice, type ShopFile, type ShopView } from './api/client';

class ShopDesk {
  view = $state<ShopView | null>(null);

  get units(): 'in' | 'cm' {
    return this.view?.shop.units ?? 'in';
  }

  /** How weights are typed without a unit, for labels. */
  get massUnit(): string {
    return this.units === 'in' ? 'lb oz' : 'kg';
  }

  /** Settles once the settings are here. */
  async ready(): Promise<void> {
    if (!this.view) await this.load();
  }

  async load(): Promise<void> {
    this.view = await calls.shop();
  }

  /** Puts some of its settings in the place of what they were. */
  async change(part: Partial<ShopFile>): Promise<void> {
    await this.ready();
    if (!this.view) return;
    this.view = await calls.changeShop({
      revision: this.view.revision,
      shop: { ...this.view.shop, ...part },
    });
  }
}

export const shop = new ShopDesk();

/** How a material of that form is put on, and what it asks. */
export const formOf = (form: string): FormChoice | undefined =>
  shop.view?.forms.find((one) => one.form === form);

/** What a layer begins as: bubble. */
export const usualWrap = (): string =>
  shop.view?.shop.materials?.find((one) => one.form === 'wrap' && one.bubbly)?.code ?? 'bubble-small';
