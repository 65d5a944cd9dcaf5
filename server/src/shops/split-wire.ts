import type { Wire } from '../db/presence';

interface ToldOfShop {
  shop: string;
  told: unknown;
}

/** One wire between processes for several shops: what is told of one is heard of that one alone. */
export class SplitWire {
  private readonly heard = new Map<string, (told: unknown) => void>();
  private readonly missed: (() => void)[] = [];

  constructor(private readonly wire: Wire) {
    wire.listen(
      (told) => {
        const { shop, told: own } = told as ToldOfShop;
        this.heard.get(shop)?.(own);
      },
      () => this.missed.forEach((tell) => tell()),
    );
  }

  of(shop: string): Wire {
    return {
      tell: (told) => this.wire.tell({ shop, told } satisfies ToldOfShop),
      listen: (heard, missed) => {
        this.heard.set(shop, heard);
        this.missed.push(missed);
      },
    };
  }
}
