import { defineConfig } from "drizzle-kit";

export default defineConfig({ dialect: "postgresql", casing: "snake_case", schema: "./db/schema/*.ts", out: "./db/migrations" });
