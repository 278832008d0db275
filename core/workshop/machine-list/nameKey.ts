/** A name as names are sorted: capitals and accents set aside, numbers in it by their worth ("Machine 9" before "Machine 10"). */
export const nameKey = (name: string): string =>
  name
    .toLowerCase()
    .normalize('NFD')
    .replace(/\p{Diacritic}/gu, '')
    .replace(/\d{1,12}/gu, (digits) => digits.padStart(12, '0'));
