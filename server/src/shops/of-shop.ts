/** What an address carries so that whoever opens it comes to the right one of several shops. @example ofShop('lantern-lane') // '?shop=lantern-lane' */
export const ofShop = (code: string | undefined): string =>
  code === undefined ? '' : `?shop=${encodeURIComponent(code)}`;
