/** How many days it takes: one figure where least and most are the same. */
export function span([least, most]: readonly [number, number]): string {
  return least === most ? String(least) : `${least}–${most}`;
}

export function inDays(days: readonly [number, number]): string {
  return `${span(days)} ${days[1] === 1 ? 'day' : 'days'}`;
}
/** A day, or the day of a moment, as a label writes it: 4 Jan 2027. */
export const dayInWords = (text: string): string =>
  new Date(text.length === 10 ? `${text}T12:00` : text).toLocaleDateString('en-GB', {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
  });

/** Today where the person is, as a file has it: 2027-01-04. */
export const today = (): string => new Date().toLocaleDateString('sv');
