// Serves a shop's own data.
import { build, install, serve } from './lib.mjs';

install();
build();
serve({});
