// Words for what a part's fields are called, and which are its own.
import { asked, shapes } from '../../job/shapes';
import type { TypedPart } from '../../job/typed';

export const nameOf = (part: TypedPart, n: number): string => part.name.trim() || `part ${n + 1}`;

export const shapeTitle = (kind: string): string => shapes().find((one) => one.kind === kind)?.title ?? kind;

/** The paths of a part's measures in the job, each with its field and its label. */
export function fieldsOf(part: TypedPart, n: number): { field: string; label: string; path: string }[] {
  return [
    ...asked(part.kind).map(({ name, label }) => ({
      field: `part-${n}-${name}`,
      label,
      path: `parts[${n}].shape.${name}`,
    })),
    { field: `part-${n}-weight`, label: 'Weight', path: `parts[${n}].weight` },
  ];
}
