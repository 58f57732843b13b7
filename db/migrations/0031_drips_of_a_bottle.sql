ALTER TABLE "zelbin"."lot" ADD COLUMN "drops_per_ml" real;--> statement-breakpoint
-- What is simply filled is filled hot, where oils are 3 % lighter: sizes kept before weighed as if they were filled cold. What is whipped is.
WITH part AS (
  SELECT v."id" AS version, l."weight" / COALESCE(
      (m."densities" ->> 'melted')::float8,
      (m."densities" ->> 'liquid')::float8,
      CASE WHEN m."kind" IN ('powder', 'colour', 'herb') THEN 1500 END
    ) AS room, m."densities" ->> 'melted' IS NULL AND m."densities" ->> 'liquid' IS NOT NULL AS swells
  FROM "zelbin"."recipe" r
  JOIN "zelbin"."recipe_version" v ON v."id" = r."version_id" AND v."overrun_bp" = 0
  JOIN "zelbin"."recipe_line" l ON l."version_id" = v."id"
  JOIN "zelbin"."material" m ON m."id" = l."material_id"
), hot AS (
  SELECT version, sum(room) / sum(CASE WHEN swells THEN room / 0.97 ELSE room END) AS share
  FROM part GROUP BY version HAVING bool_and(room IS NOT NULL) AND sum(room) > 0
)
UPDATE "zelbin"."product" p SET "fill" = floor(p."fill" * hot.share + 0.5)
FROM hot JOIN "zelbin"."recipe" r ON r."version_id" = hot.version
WHERE p."recipe_id" = r."id" AND p."fill_by" = 'full';
