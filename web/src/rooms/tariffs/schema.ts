import { written } from '../../lib/written';

// What may stand where in a tariff file, read from its JSON Schema: the form is drawn from this, and knows no tariff.
export type Json = string | number | boolean | null | Json[] | { [key: string]: Json };
export type JsonObject = { [key: string]: Json };

export interface Node {
  $ref?: string;
  title?: string;
  type?: string;
  description?: string;
  default?: Json;
  const?: Json;
  enum?: Json[];
  format?: string;
  properties?: Record<string, Node>;
  required?: string[];
  items?: Node;
  prefixItems?: Node[];
  anyOf?: Node[];
  oneOf?: Node[];
  $defs?: Record<string, Node>;
  /** Of what kind a measure is. */
  'x-measure'?: 'length' | 'mass' | 'sizes' | 'distance';
}

export type Look =
  | { as: 'text'; optional: boolean }
  | { as: 'date' }
  | { as: 'whole' }
  | { as: 'tick' }
  | { as: 'one of'; choices: string[]; optional: boolean }
  | { as: 'fixed'; value: string }
  | { as: 'words' }
  | { as: 'several of'; choices: string[] }
  | { as: 'pair' }
  | { as: 'table' }
  | { as: 'rows'; of: Node }
  | { as: 'kinds'; kinds: Record<string, Node> }
  | { as: 'group'; of: Node; optional: boolean };

/** A value of a tariff on the form: what it may be, what holds it and where, what it is called. */
export interface OnForm {
  schema: Schema;
  node: Node;
  owner: JsonObject | Json[];
  name: string | number;
  path: string;
  label: string;
  wrong: (path: string) => boolean;
  touch: () => void;
}

export class Schema {
  constructor(readonly root: Node) {}

  resolve(node: Node): Node {
    if (!node.$ref) return node;
    const found = this.root.$defs?.[node.$ref.split('/').at(-1) ?? ''];
    return found ? { ...found, description: node.description ?? found.description } : {};
  }

  /** What a field is called on the form: its title, where it has one that is not made of its name. */
  called(field: string, node: Node): string {
    const said = inWords(field);
    return node.title && node.title.toLowerCase() !== said.toLowerCase() ? node.title : said;
  }

  /** What there is to say of a value beside its name; how a measure is typed is known by now. */
  says(given: Node): string {
    const node = this.resolve(given);
    return node['x-measure'] ? '' : (node.description ?? '');
  }

  /** How a value of a node is shown and typed. */
  look(given: Node): Look {
    const node = this.resolve(given);
    const others = (node.anyOf ?? []).filter((one) => one.type !== 'null').map((one) => this.resolve(one));
    const optional = (node.anyOf ?? []).some((one) => one.type === 'null');
    if (node.anyOf) {
      const [only] = others;
      if (others.length === 1 && only) {
        const inner = this.look(only);
        if (inner.as === 'group' || inner.as === 'one of' || inner.as === 'text')
          return { ...inner, optional };
        return inner;
      }
      return { as: 'text', optional }; // a measure: a number, or text with its unit
    }
    if (node.const !== undefined) return { as: 'fixed', value: written(node.const) };
    if (node.enum) return { as: 'one of', choices: node.enum.map(String), optional: false };
    if (node.type === 'boolean') return { as: 'tick' };
    if (node.type === 'integer') return { as: 'whole' };
    if (node.type === 'string')
      return node.format === 'date' ? { as: 'date' } : { as: 'text', optional: false };
    if (node.type === 'array') {
      if (node.prefixItems) return { as: 'pair' };
      const items = this.resolve(node.items ?? {});
      if (items.enum) return { as: 'several of', choices: items.enum.map(String) };
      if (items.oneOf) return { as: 'kinds', kinds: this.#kinds(items) };
      if (items.type === 'array') return { as: 'table' };
      return items.type === 'object' ? { as: 'rows', of: items } : { as: 'words' };
    }
    return { as: 'group', of: node, optional: false };
  }

  /** What stands in a node before anything was typed. */
  fresh(given: Node): Json {
    const node = this.resolve(given);
    if (node.default !== undefined) return structuredClone(node.default);
    if (node.const !== undefined) return node.const;
    if (node.anyOf?.some((one) => one.type === 'null')) return null;
    switch (this.look(node).as) {
      case 'tick':
        return false;
      case 'whole':
        return 0;
      case 'pair':
        return [1, 5];
      case 'table':
        return [['', '']];
      case 'rows':
      case 'kinds':
      case 'words':
      case 'several of':
        return [];
      case 'group':
        return Object.fromEntries(
          Object.entries(node.properties ?? {}).map(([name, one]) => [name, this.fresh(one)]),
        );
      case 'one of':
        return node.enum?.[0] ?? '';
      default:
        return '';
    }
  }

  #kinds(items: Node): Record<string, Node> {
    const named = (items.oneOf ?? []).map((one) => this.resolve(one));
    return Object.fromEntries(named.map((one) => [written(one.properties?.kind?.const), one]));
  }
}

/** A name of the file in words. */
export const inWords = (name: string): string => name.replaceAll('_', ' ');
