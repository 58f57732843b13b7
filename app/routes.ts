/** What a person can do, station by station. */
import { index, layout, prefix, route, type RouteConfig } from "@react-router/dev/routes";

export default [
  layout("ui/workroom.tsx", [
    index("today/today.tsx"),
    ...prefix("shelf", [
      index("shelf/shelf.tsx"),
      route("receive", "shelf/receive.tsx"),
      route("new", "shelf/add.tsx"),
      route(":id", "shelf/material.tsx"),
      route(":id/facts", "shelf/facts.tsx"),
    ]),
    ...prefix("recipes", [
      index("recipes/recipes.tsx"),
      route("new", "recipes/write.tsx", { id: "recipes/new" }),
      route(":id", "recipes/write.tsx", { id: "recipes/one" }),
    ]),
    ...prefix("bench", [index("bench/bench.tsx"), route("set-out", "bench/setOut.tsx"), route(":id", "bench/batch.tsx")]),
    route("cabinet", "cabinet/cabinet.tsx"),
    ...prefix("prices", [index("prices/prices.tsx"), route(":id", "prices/product.tsx")]),
    ...prefix("markets", [
      index("markets/markets.tsx"),
      route("new", "markets/day.tsx", { id: "markets/new" }),
      route(":id", "markets/day.tsx", { id: "markets/one" }),
    ]),
    ...prefix("gifts", [
      index("gifts/gifts.tsx"),
      route("new", "gifts/order.tsx", { id: "gifts/new" }),
      route(":id", "gifts/order.tsx", { id: "gifts/one" }),
    ]),
    ...prefix("lots", [index("lots/lots.tsx"), route(":number", "lots/lot.tsx")]),
    route("settings", "settings/settings.tsx"),
    route("*", "ui/missing.tsx"),
  ]),
  route("reckon", "reckon/reckon.ts"),
  route("take-back", "ui/takeBack.ts"),
  route("empty", "ui/emptyPage.tsx"),
] satisfies RouteConfig;
