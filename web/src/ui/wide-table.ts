import type { ObjectDirective } from 'vue';

/** Writes the head of each column into its cells, for narrow screens, where a row is a card and the heads are gone. */
function nameCells(table: HTMLTableElement): void {
  const heads = [...(table.tHead?.rows[0]?.cells ?? [])].map((th) =>
    th.querySelector('.d-sr-only') ? '' : (th.textContent?.replace(/\s+/g, ' ').trim() ?? ''),
  );
  for (const row of table.tBodies[0]?.rows ?? []) {
    // The first cell is what the card is about: it needs no head.
    for (const [i, cell] of [...row.cells].entries()) {
      if (i > 0 && heads[i] && row.cells.length === heads.length) cell.dataset.head = heads[i];
    }
  }
}

/** A table that is a list of cards on a narrow screen: `<table v-wide class="plain wide">`. */
export const vWide: ObjectDirective<HTMLTableElement> = { mounted: nameCells, updated: nameCells };
