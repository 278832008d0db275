/** One package that the product is built with or runs on. */
export interface Licensed {
  readonly name: string;
  readonly version: string;
  readonly licence: string;
  /** needed to build and test alone: nothing of it is shipped */
  readonly isTool: boolean;
}

interface Lock {
  readonly packages: Readonly<Record<string, { readonly version?: string; readonly license?: string; readonly dev?: boolean }>>;
}

/** Packages whose own words name none, with the licence whose text comes with them. */
const BY_ITS_TEXT: Readonly<Record<string, string>> = { 'png-js@2.0.0': 'MIT' };

/** Every package of a lock file, each version once, by name. */
export function licencesOf({ packages }: Lock): Licensed[] {
  const found = new Map<string, Licensed>();
  for (const [place, { version = '', license, dev = false }] of Object.entries(packages)) {
    if (place === '') continue;
    const name = place.slice(place.lastIndexOf('node_modules/') + 'node_modules/'.length);
    const key = `${name}@${version}`;
    const known = found.get(key);
    found.set(key, { name, version, licence: license ?? BY_ITS_TEXT[key] ?? 'not stated', isTool: dev && (known?.isTool ?? true) });
  }
  return [...found.values()].sort((a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : a.version < b.version ? -1 : 1));
}

const table = (rows: readonly Licensed[]): string =>
  [
    '| package | version | licence |',
    '|---|---|---|',
    ...rows.map(({ name, version, licence }) => `| ${name} | ${version} | ${licence} |`),
  ].join('\n');

/** The list as a page of the docs. */
export function licencePage(rows: readonly Licensed[]): string {
  const shipped = rows.filter(({ isTool }) => !isTool);
  const kinds = new Map<string, number>();
  for (const { licence } of shipped) kinds.set(licence, (kinds.get(licence) ?? 0) + 1);
  const counted = [...kinds].sort((a, b) => b[1] - a[1]).map(([licence, count]) => `${licence} ${count}`);
  return `# Licences of what Lavacrum stands on

Lavacrum itself: MIT, see \`LICENSE\`. This list is made by \`./lavacrum licences\` from the lock file; a test compares the two.
From Debian come PostgreSQL (PostgreSQL licence) and, for tests alone, Chromium (BSD-3-Clause and others).

## Shipped, or loaded at run time (${shipped.length})

${counted.join(' · ')}

${table(shipped)}

## For building and testing alone (${rows.length - shipped.length})

${table(rows.filter(({ isTool }) => isTool))}
`;
}
