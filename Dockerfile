# Kevro in a container: docs/to-run-it.md says how it is started. `npm run dockerfile` tries these steps where no container engine runs.
FROM node:20-bookworm-slim AS build
WORKDIR /kevro
COPY . .
RUN npm ci --no-audit --no-fund --loglevel error
RUN node scripts/pack.mjs /packed

FROM node:20-bookworm-slim
COPY --from=build /packed /packed
RUN npm install --global --no-audit --no-fund --loglevel error /packed/*.tgz
RUN mkdir -p /var/lib/kevro && chown node:node /var/lib/kevro
ENV KEVRO_DATA=/var/lib/kevro HOST=0.0.0.0 PORT=4700
USER node
VOLUME /var/lib/kevro
EXPOSE 4700
HEALTHCHECK --interval=30s --start-period=60s CMD ["node", "-e", "fetch('http://127.0.0.1:4700/api/v1/health').then((r) => process.exit(r.ok ? 0 : 1), () => process.exit(1))"]
CMD ["kevro"]
