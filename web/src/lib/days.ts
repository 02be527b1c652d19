/** How many days it takes: one figure where least and most are the same. */
export function span([least, most]: readonly [number, number]): string {
  return least === most ? String(least) : `${least}–${most}`;
}

export function inDays(days: readonly [number, number]): string {
  return `${span(days)} ${days[1] === 1 ? 'day' : 'days'}`;
}
