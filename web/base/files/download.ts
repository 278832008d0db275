/** A file name that every system takes. */
export const fileName = (words: string, fallback: string): string =>
  words
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '') || fallback;

/** Hands a text to the person as a file. */
export function downloadText(text: string, name: string, type: 'application/json' | 'text/csv' | 'image/svg+xml'): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([text], { type }));
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}

export const downloadJson = (document: unknown, name: string): void =>
  downloadText(`${JSON.stringify(document, null, 2)}\n`, `${name}.json`, 'application/json');

/** A list as a table. Cells that a table program would take for a formula are quoted as text. */
export async function downloadTable(rows: readonly Readonly<Record<string, string | number>>[], name: string): Promise<void> {
  const { default: papa } = await import('papaparse');
  downloadText(`${papa.unparse([...rows], { escapeFormulae: true })}\n`, `${name}.csv`, 'text/csv');
}
