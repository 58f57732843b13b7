-- An oil that was strained before carries what its herbs and oils are minded for by now; what the maker says of it stays.
WITH minded ("key", "caution") AS (
  VALUES
    ('lanolin', 'sensitiser'),
    ('borage', 'alkaloid'),
    ('neem', 'pregnancy'),
    ('neem', 'notLips'),
    ('tamanu', 'sensitiser'),
    ('black-cumin', 'sensitiser'),
    ('calendula', 'sensitiser'),
    ('chamomile', 'sensitiser'),
    ('comfrey', 'alkaloid'),
    ('comfrey', 'pregnancy'),
    ('comfrey', 'brokenSkin'),
    ('comfrey-root', 'alkaloid'),
    ('comfrey-root', 'pregnancy'),
    ('comfrey-root', 'brokenSkin'),
    ('yarrow', 'sensitiser'),
    ('yarrow', 'pregnancy'),
    ('arnica', 'sensitiser'),
    ('meadowsweet', 'salicylate'),
    ('birch-leaf', 'salicylate'),
    ('sage-leaf', 'pregnancy'),
    ('burdock-root', 'sensitiser'),
    ('alkanet', 'alkaloid'),
    ('alkanet', 'notLips'),
    ('alkanet', 'pregnancy'),
    ('alkanet', 'brokenSkin'),
    ('alkanet', 'colourRules'),
    ('cayenne', 'notLips'),
    ('cayenne', 'brokenSkin'),
    ('cayenne', 'smallChildren'),
    ('garlic', 'brokenSkin'),
    ('cottonwood-bud', 'salicylate'),
    ('cottonwood-bud', 'sensitiser'),
    ('helichrysum-flower', 'sensitiser'),
    ('usnea', 'sensitiser'),
    ('willow-bark', 'salicylate'),
    ('propolis', 'sensitiser'),
    ('pine-resin', 'sensitiser')
), carried AS (
  SELECT DISTINCT l."material_id", k."caution"
  FROM "zelbin"."jar" j
  JOIN "zelbin"."movement" mv ON mv."act_id" = j."strained_act_id" AND mv."reason" = 'strained'
  JOIN "zelbin"."lot" l ON l."id" = mv."lot_id"
  JOIN "zelbin"."jar_part" p ON p."jar_id" = j."id"
  JOIN "zelbin"."material" h ON h."id" = p."material_id"
  JOIN minded k ON k."key" = h."library_key"
), missing AS (
  SELECT c."material_id", jsonb_agg(c."caution" ORDER BY c."caution") AS cautions
  FROM carried c JOIN "zelbin"."material" m ON m."id" = c."material_id"
  WHERE NOT m."cautions" ? c."caution"
  GROUP BY c."material_id"
)
UPDATE "zelbin"."material" m SET "cautions" = m."cautions" || missing.cautions FROM missing WHERE missing."material_id" = m."id";--> statement-breakpoint
-- Shea and coconut are no allergens to be named, and tamanu is no nut: where the starter library's word stands as it was given, it goes.
UPDATE "zelbin"."material" SET "allergen" = '' WHERE "library_key" IN ('shea-unrefined', 'shea-refined') AND "allergen" = 'Tree nut in some places';--> statement-breakpoint
UPDATE "zelbin"."material" SET "allergen" = '' WHERE "library_key" IN ('coconut-virgin', 'coconut-refined') AND "allergen" = 'Coconut';--> statement-breakpoint
UPDATE "zelbin"."material" SET "allergen" = '' WHERE "library_key" = 'tamanu' AND "allergen" = 'Tree nut';--> statement-breakpoint
UPDATE "zelbin"."material" SET "cautions" = "cautions" - 'nut' WHERE "library_key" IN ('shea-unrefined', 'shea-refined', 'tamanu');--> statement-breakpoint
-- "Drags" was a word for how hard a pot is, and is one for its wax on skin now: what was felt so is kept as hard as a bar, and as a word of the hand.
UPDATE "zelbin"."firmness_test" SET "feel" = 'bar', "note" = trim("note" || ' It drags.') WHERE "feel" = 'drags';
