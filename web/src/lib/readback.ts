// What was read of a measure, where it says more than what was typed: a foot in inches, a centimetre in sixteenths.

const plain = (said: string) =>
  said
    .replace(/ (in|cm|kg|lb)$/, '')
    .replace(/[\s"-]+/g, ' ')
    .trim();

/** The measure as it was read; nothing where that is what was typed. */
export const readOtherwise = (read: string, typed: string): string =>
  read && plain(read) !== plain(typed) ? read : '';
