import helmet from 'helmet';

/**
 * What browsers may do with the page: scripts, styles, pictures and calls of the shop's own only, nothing in a frame of somebody else, no address told to others.
 * What needs HTTPS is left out: in a shop's network the page comes by plain HTTP.
 */
export const safeHeaders = helmet({
  contentSecurityPolicy: {
    useDefaults: false,
    directives: {
      defaultSrc: ["'self'"],
      scriptSrc: ["'self'"],
      workerSrc: ["'self'", 'blob:'],
      // The component library writes its theme into a style element; a style cannot read or send anything.
      styleSrc: ["'self'", "'unsafe-inline'"],
      imgSrc: ["'self'", 'data:', 'blob:'],
      // A film that was chosen is played where the browser decodes for no script.
      mediaSrc: ["'self'", 'blob:'],
      fontSrc: ["'self'", 'data:'],
      connectSrc: ["'self'", 'blob:', 'data:'],
      objectSrc: ["'none'"],
      baseUri: ["'none'"],
      formAction: ["'self'"],
      frameAncestors: ["'none'"],
    },
  },
  referrerPolicy: { policy: 'no-referrer' },
  strictTransportSecurity: false,
  crossOriginOpenerPolicy: false,
  originAgentCluster: false,
});
