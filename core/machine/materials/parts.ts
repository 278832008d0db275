/** Materials of parts as a workshop meets them; what a part's sheet names otherwise can be entered as well. */
export const PART_MATERIALS = [
  'copper',
  'brass',
  'nickel',
  'chrome',
  'stainless',
  'aluminium',
  'acrylic',
  'acetal',
  'glass',
  'epdm',
  'silicone',
] as const;
