// Words for what a part's fields are called, and which are its own.
import { asked, shapes } from '../../job/shapes';
import type { TypedPart } from '../../job/typed';

export const nameOf = (part: TypedPart, n: number): string => part.name.trim() || `part ${n + 1}`;

export const shapeTitle = (kind: string): string => shapes().find((one) => one.kind === kind)?.title ?? kind;

/** What a count that is no count is answered with. */
export function countFault(said: string): string {
  const number = Number(said.trim());
  if (!said.trim() || (Number.isInteger(number) && number >= 1 && number <= 999)) return '';
  return `read '${said}', not a count. Allowed: 1 to 999; reckoned with as 1.`;
}

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
