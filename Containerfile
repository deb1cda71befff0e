# The app with its packages, built once; what runs has no rights and writes to /exchange alone.
FROM docker.io/library/node:22-bookworm-slim AS build
WORKDIR /app
COPY . .
RUN npm run build && npm prune --omit=dev --no-audit --no-fund

FROM docker.io/library/node:22-bookworm-slim
ENV NODE_ENV=production \
    HOST=0.0.0.0 \
    PORT=4321 \
    GRIBBET_DATA=/exchange \
    GRIBBET_DEMO=0
WORKDIR /app
COPY --from=build /app /app
RUN install -d -o node -g node -m 700 /exchange
USER node
VOLUME /exchange
EXPOSE 4321
HEALTHCHECK --interval=30s --timeout=5s CMD ["node", "-e", "fetch('http://127.0.0.1:4321/api/exchange/ready').then(r => process.exit(r.ok ? 0 : 1), () => process.exit(1))"]
STOPSIGNAL SIGTERM
CMD ["node", "scripts/start.mjs"]
