CREATE TABLE "act_subject" (
	"act_id" integer NOT NULL,
	"kind" text NOT NULL,
	"subject_id" integer NOT NULL,
	"changes" boolean NOT NULL,
	CONSTRAINT "act_subject_kind_subject_id_act_id_pk" PRIMARY KEY("kind","subject_id","act_id")
);
--> statement-breakpoint
CREATE TABLE "batch_size" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "batch_size_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"batch_id" integer NOT NULL,
	"position" integer NOT NULL,
	"product_id" integer NOT NULL,
	"planned" integer NOT NULL,
	"label" text NOT NULL,
	"fill" bigint NOT NULL,
	"unit_minutes_hundredths" integer NOT NULL,
	"units" integer,
	"minutes_hundredths" integer,
	"lot_id" integer,
	CONSTRAINT "batch_size_product" UNIQUE("batch_id","product_id")
);
--> statement-breakpoint
CREATE TABLE "recipe_version" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "recipe_version_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"recipe_id" integer NOT NULL,
	"n" integer NOT NULL,
	"act_id" integer,
	"day" date NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"name" text NOT NULL,
	"type" text NOT NULL,
	"makes" bigint,
	"total" bigint NOT NULL,
	"loss_bp" integer NOT NULL,
	"keeps_months" integer NOT NULL,
	"batch_minutes" integer NOT NULL,
	"overrun_bp" integer DEFAULT 0 NOT NULL,
	"method" text DEFAULT '' NOT NULL,
	CONSTRAINT "recipe_version_n" UNIQUE("recipe_id","n")
);
--> statement-breakpoint
ALTER TABLE "product" DROP CONSTRAINT "product_size";
--> statement-breakpoint
ALTER TABLE "batch" DROP CONSTRAINT "batch_product_id_product_id_fk";
--> statement-breakpoint
ALTER TABLE "recipe_line" DROP CONSTRAINT "recipe_line_recipe_id_recipe_id_fk";
--> statement-breakpoint
DROP INDEX "batch_lot";
--> statement-breakpoint
DROP INDEX "recipe_line_recipe";
--> statement-breakpoint
ALTER TABLE "act" ADD COLUMN "who" text DEFAULT '' NOT NULL;
--> statement-breakpoint
ALTER TABLE "act" ADD COLUMN "digest" text;
--> statement-breakpoint
ALTER TABLE "act" ADD COLUMN "seen" integer;
--> statement-breakpoint
ALTER TABLE "act" ADD COLUMN "leaves" jsonb;
--> statement-breakpoint
ALTER TABLE "batch" ADD COLUMN "version_id" integer;
--> statement-breakpoint
ALTER TABLE "batch_take" ADD COLUMN "name" text;
--> statement-breakpoint
ALTER TABLE "gift_item" ADD COLUMN "name" text;
--> statement-breakpoint
ALTER TABLE "gift_order" ADD COLUMN "hourly" bigint;
--> statement-breakpoint
ALTER TABLE "gift_wrap" ADD COLUMN "name" text;
--> statement-breakpoint
ALTER TABLE "harvest" ADD COLUMN "name" text;
--> statement-breakpoint
ALTER TABLE "harvest" ADD COLUMN "picked_act_id" integer;
--> statement-breakpoint
ALTER TABLE "jar_part" ADD COLUMN "name" text;
--> statement-breakpoint
ALTER TABLE "attachment" ADD COLUMN "dropped_act_id" integer;
--> statement-breakpoint
ALTER TABLE "purchase_line" ADD COLUMN "name" text;
--> statement-breakpoint
ALTER TABLE "product" ADD COLUMN "position" integer DEFAULT 0 NOT NULL;
--> statement-breakpoint
ALTER TABLE "product" ADD COLUMN "label" text;
--> statement-breakpoint
ALTER TABLE "product" ADD COLUMN "fill_by" text DEFAULT 'weight' NOT NULL;
--> statement-breakpoint
ALTER TABLE "product" ADD COLUMN "fill_text" text DEFAULT '' NOT NULL;
--> statement-breakpoint
ALTER TABLE "product" ADD COLUMN "fill_ml" real;
--> statement-breakpoint
ALTER TABLE "product" ADD COLUMN "container_id" integer;
--> statement-breakpoint
ALTER TABLE "product" ADD COLUMN "unit_minutes_hundredths" integer DEFAULT 0 NOT NULL;
--> statement-breakpoint
ALTER TABLE "product" ADD COLUMN "retired" boolean DEFAULT false NOT NULL;
--> statement-breakpoint
ALTER TABLE "recipe" ADD COLUMN "version_id" integer;
--> statement-breakpoint
ALTER TABLE "recipe_line" ADD COLUMN "version_id" integer;
--> statement-breakpoint
ALTER TABLE "recipe_line" ADD COLUMN "name" text;
--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "name" text;
--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "label" text DEFAULT '' NOT NULL;
--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "fill" bigint;
--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "printed" date;
--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "best_by" text DEFAULT '' NOT NULL;
--> statement-breakpoint
ALTER TABLE "movement" ADD COLUMN "into_lot_id" integer;
--> statement-breakpoint
-- Which acts stand, asked in one way.
CREATE VIEW standing_act AS
  SELECT a.id, a.kind, a.day, a.summary, a.path FROM act a
  WHERE a.undoes IS NULL AND NOT EXISTS (SELECT 1 FROM act u WHERE u.undoes = a.id);
--> statement-breakpoint
-- Recipes become rows of versions; what was written so far is the first.
INSERT INTO recipe_version (recipe_id, n, day, name, type, makes, total, loss_bp, keeps_months, batch_minutes, method)
  SELECT r.id, 1, coalesce((SELECT max(a.day) FROM act a WHERE a.kind = 'saveRecipe' AND a.path = '/recipes/' || r.id), (SELECT min(day) FROM act), current_date),
    r.name, r.type, r.makes, r.total, r.loss_bp, r.keeps_months, r.batch_minutes, r.method
  FROM recipe r ORDER BY r.id;
--> statement-breakpoint
UPDATE recipe r SET version_id = v.id FROM recipe_version v WHERE v.recipe_id = r.id;
--> statement-breakpoint
UPDATE recipe_line l SET version_id = r.version_id, name = m.name FROM recipe r, material m WHERE r.id = l.recipe_id AND m.id = l.material_id;
--> statement-breakpoint
-- A size is called by what it is filled with; the one that isn't made any more is put away.
UPDATE product p SET label = trim(trailing '.' from to_char(p.fill / 1000.0, 'FM999999990.99')) || ' g', retired = NOT p.current,
    unit_minutes_hundredths = r.unit_minutes_hundredths,
    container_id = (SELECT k.material_id FROM product_packaging k JOIN material m ON m.id = k.material_id WHERE k.product_id = p.id AND m.kind = 'container' ORDER BY k.id LIMIT 1)
  FROM recipe r WHERE r.id = p.recipe_id;
--> statement-breakpoint
UPDATE product SET fill_text = label;
--> statement-breakpoint
UPDATE batch b SET version_id = r.version_id FROM recipe r WHERE r.id = b.recipe_id;
--> statement-breakpoint
INSERT INTO batch_size (batch_id, position, product_id, planned, label, fill, unit_minutes_hundredths, units, minutes_hundredths, lot_id)
  SELECT b.id, 0, b.product_id, b.planned_units, p.label, p.fill, p.unit_minutes_hundredths, b.units, b.minutes * 100, b.lot_id
  FROM batch b JOIN product p ON p.id = b.product_id ORDER BY b.id;
--> statement-breakpoint
-- What is settled keeps the names it has now.
UPDATE batch_take t SET name = m.name FROM material m WHERE m.id = t.material_id;
--> statement-breakpoint
UPDATE purchase_line t SET name = m.name FROM material m WHERE m.id = t.material_id;
--> statement-breakpoint
UPDATE jar_part t SET name = m.name FROM material m WHERE m.id = t.material_id;
--> statement-breakpoint
UPDATE harvest t SET name = m.name FROM material m WHERE m.id = t.material_id;
--> statement-breakpoint
UPDATE gift_wrap t SET name = m.name FROM material m WHERE m.id = t.material_id;
--> statement-breakpoint
UPDATE gift_item t SET name = r.name || ', ' || p.label FROM product p JOIN recipe r ON r.id = p.recipe_id WHERE p.id = t.product_id;
--> statement-breakpoint
UPDATE gift_order SET hourly = coalesce((SELECT (data ->> 'hourly')::bigint FROM settings WHERE id = 1), 0) WHERE packed_act_id IS NOT NULL;
--> statement-breakpoint
UPDATE lot l SET name = m.name, printed = CASE WHEN l.opened IS NULL THEN l.best_before ELSE l.sealed_best_before END FROM material m WHERE m.id = l.material_id;
--> statement-breakpoint
UPDATE lot l SET name = r.name, label = p.label, fill = p.fill, printed = l.best_before FROM product p JOIN recipe r ON r.id = p.recipe_id WHERE p.id = l.product_id;
--> statement-breakpoint
UPDATE lot SET best_by = 'printed' WHERE printed IS NOT NULL AND best_before = printed;
--> statement-breakpoint
UPDATE lot SET best_by = 'opened' WHERE opened IS NOT NULL AND best_before IS DISTINCT FROM printed;
--> statement-breakpoint
-- A lot nobody printed a date on keeps as long as its material does.
UPDATE lot l SET best_by = 'keeping', best_before = (l.arrived + m.keeps_sealed * interval '1 month')::date
  FROM material m WHERE m.id = l.material_id AND l.on_hand > 0 AND l.best_before IS NULL AND m.keeps_sealed IS NOT NULL;
--> statement-breakpoint
UPDATE settings SET data = data - 'scaleStep' || jsonb_build_object('scale', jsonb_build_object('unit', 'g', 'step', (data ->> 'scaleStep')::int))
  WHERE data ? 'scaleStep';
--> statement-breakpoint
-- A size's own packaging went into its lot alone.
ALTER TABLE movement DISABLE TRIGGER movement_append_only;
--> statement-breakpoint
UPDATE movement m SET into_lot_id = s.lot_id FROM batch_size s, lot l, material mt
  WHERE s.batch_id = m.batch_id AND l.id = m.lot_id AND mt.id = l.material_id
    AND mt.kind IN ('container', 'closure', 'mould', 'label', 'wrap', 'box', 'consumable');
--> statement-breakpoint
ALTER TABLE movement ENABLE TRIGGER movement_append_only;
--> statement-breakpoint
DROP VIEW lot_link;
--> statement-breakpoint
-- Some of lot from_lot is in lot to_lot: by a batch, a jar or a blend, as long as what made it stands.
CREATE VIEW lot_link AS
  SELECT ing.lot_id AS from_lot, made.lot_id AS to_lot
    FROM batch b
    JOIN movement made ON made.act_id = b.poured_act_id AND made.reason = 'filled'
    JOIN movement ing ON ing.act_id = b.poured_act_id AND ing.reason = 'used' AND (ing.into_lot_id IS NULL OR ing.into_lot_id = made.lot_id)
  UNION ALL
  SELECT p.lot_id, made.lot_id
    FROM jar j
    JOIN jar_part p ON p.jar_id = j.id
    JOIN movement made ON made.act_id = j.strained_act_id AND made.reason = 'strained'
  UNION ALL
  SELECT ing.lot_id, made.lot_id
    FROM movement made
    JOIN movement ing ON ing.act_id = made.act_id AND ing.reason = 'blended' AND ing.qty < 0
    JOIN standing_act sa ON sa.id = made.act_id
    WHERE made.reason = 'blended' AND made.qty > 0;
--> statement-breakpoint
-- What acts leave for the day they are taken back, in the shape they are read in now.
UPDATE act SET who = 'Maker';
--> statement-breakpoint
UPDATE act SET leaves = jsonb_build_object('v', 1, 'left', jsonb_build_object('lotId', before -> 'lotId')) WHERE kind = 'open' AND before IS NOT NULL;
--> statement-breakpoint
UPDATE act a SET leaves = jsonb_build_object('v', 1, 'left', jsonb_build_object('note', j.note)) FROM jar j WHERE a.kind = 'spoil' AND j.spoiled_act_id = a.id;
--> statement-breakpoint
UPDATE act a SET leaves = jsonb_build_object('v', 1, 'left', jsonb_build_object(
    'head', (a.before -> 'purchase') - 'actId',
    'lines', (SELECT coalesce(jsonb_agg((l - 'purchaseId') || jsonb_build_object('name', m.name) ORDER BY (l ->> 'id')::int), '[]')
      FROM jsonb_array_elements(a.before -> 'lines') l JOIN material m ON m.id = (l ->> 'materialId')::int),
    'lots', (SELECT coalesce(jsonb_agg(jsonb_build_object('id', t.id, 'materialId', t.material_id, 'name', t.name, 'supplierLot', b ->> 'supplierLot',
        'printed', coalesce(b ->> 'sealedBestBefore', b ->> 'bestBefore'), 'arrived', b ->> 'arrived') ORDER BY t.id), '[]')
      FROM jsonb_array_elements(a.before -> 'lots') b JOIN lot t ON t.id = (b ->> 'id')::int)))
  WHERE a.kind = 'correct' AND a.before IS NOT NULL;
--> statement-breakpoint
-- What each act was about: by where it led, by what it moved, and by the records that point at it.
INSERT INTO act_subject (act_id, kind, subject_id, changes)
  SELECT DISTINCT ON (act_id, kind, subject_id) act_id, kind, subject_id, true FROM (
    SELECT a.id AS act_id, k.kind, (regexp_match(a.path, k.pattern))[1]::int AS subject_id FROM act a JOIN (VALUES
      ('receipt', '^/shelf/receipts/(\d+)$'), ('harvest', '^/shelf/harvests/(\d+)$'), ('material', '^/shelf/(\d+)(?:/buying)?$'), ('jar', '^/jars/(\d+)$'),
      ('recipe', '^/recipes/(\d+)$'), ('batch', '^/bench/(\d+)$'), ('product', '^/prices/(\d+)$'), ('market', '^/markets/(\d+)$'), ('order', '^/gifts/(\d+)$')
    ) AS k (kind, pattern) ON a.path ~ k.pattern
    UNION SELECT act_id, 'receipt', id FROM purchase
    UNION SELECT cleared_act_id, 'batch', id FROM batch WHERE cleared_act_id IS NOT NULL
    UNION SELECT a.id, 'settings', 1 FROM act a WHERE a.kind = 'settings'
    UNION SELECT a.id, 'lot', (a.before ->> 'lotId')::int FROM act a WHERE a.kind = 'open' AND a.before IS NOT NULL
  ) found;
--> statement-breakpoint
INSERT INTO act_subject (act_id, kind, subject_id, changes)
  SELECT DISTINCT m.act_id, 'material', l.material_id, false FROM movement m JOIN lot l ON l.id = m.lot_id WHERE l.material_id IS NOT NULL
  ON CONFLICT DO NOTHING;
--> statement-breakpoint
INSERT INTO act_subject (act_id, kind, subject_id, changes)
  SELECT DISTINCT m.act_id, 'product', l.product_id, false FROM movement m JOIN lot l ON l.id = m.lot_id WHERE l.product_id IS NOT NULL
  ON CONFLICT DO NOTHING;
--> statement-breakpoint
-- A lot taken off the shelf or counted changes nothing on its material's sheet of facts.
UPDATE act_subject s SET changes = false FROM act a WHERE a.id = s.act_id AND s.kind = 'material' AND a.kind NOT IN ('saveMaterial', 'retire', 'deleteMaterial', 'undo');
--> statement-breakpoint
ALTER TABLE "batch" ALTER COLUMN "version_id" SET NOT NULL;
--> statement-breakpoint
ALTER TABLE "batch_take" ALTER COLUMN "name" SET NOT NULL;
--> statement-breakpoint
ALTER TABLE "gift_item" ALTER COLUMN "name" SET NOT NULL;
--> statement-breakpoint
ALTER TABLE "gift_wrap" ALTER COLUMN "name" SET NOT NULL;
--> statement-breakpoint
ALTER TABLE "harvest" ALTER COLUMN "name" SET NOT NULL;
--> statement-breakpoint
ALTER TABLE "jar_part" ALTER COLUMN "name" SET NOT NULL;
--> statement-breakpoint
ALTER TABLE "purchase_line" ALTER COLUMN "name" SET NOT NULL;
--> statement-breakpoint
ALTER TABLE "product" ALTER COLUMN "label" SET NOT NULL;
--> statement-breakpoint
ALTER TABLE "recipe_line" ALTER COLUMN "version_id" SET NOT NULL;
--> statement-breakpoint
ALTER TABLE "recipe_line" ALTER COLUMN "name" SET NOT NULL;
--> statement-breakpoint
ALTER TABLE "lot" ALTER COLUMN "name" SET NOT NULL;
--> statement-breakpoint
ALTER TABLE "act_subject" ADD CONSTRAINT "act_subject_act_id_act_id_fk" FOREIGN KEY ("act_id") REFERENCES "public"."act"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
ALTER TABLE "batch_size" ADD CONSTRAINT "batch_size_batch_id_batch_id_fk" FOREIGN KEY ("batch_id") REFERENCES "public"."batch"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
ALTER TABLE "batch_size" ADD CONSTRAINT "batch_size_product_id_product_id_fk" FOREIGN KEY ("product_id") REFERENCES "public"."product"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
ALTER TABLE "batch_size" ADD CONSTRAINT "batch_size_lot_id_lot_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lot"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
ALTER TABLE "recipe_version" ADD CONSTRAINT "recipe_version_recipe_id_recipe_id_fk" FOREIGN KEY ("recipe_id") REFERENCES "public"."recipe"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
ALTER TABLE "recipe_version" ADD CONSTRAINT "recipe_version_act_id_act_id_fk" FOREIGN KEY ("act_id") REFERENCES "public"."act"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
CREATE INDEX "act_subject_act" ON "act_subject" USING btree ("act_id");
--> statement-breakpoint
CREATE INDEX "batch_size_lot" ON "batch_size" USING btree ("lot_id");
--> statement-breakpoint
ALTER TABLE "batch" ADD CONSTRAINT "batch_version_id_recipe_version_id_fk" FOREIGN KEY ("version_id") REFERENCES "public"."recipe_version"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
ALTER TABLE "harvest" ADD CONSTRAINT "harvest_picked_act_id_act_id_fk" FOREIGN KEY ("picked_act_id") REFERENCES "public"."act"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
ALTER TABLE "attachment" ADD CONSTRAINT "attachment_dropped_act_id_act_id_fk" FOREIGN KEY ("dropped_act_id") REFERENCES "public"."act"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
ALTER TABLE "product" ADD CONSTRAINT "product_container_id_material_id_fk" FOREIGN KEY ("container_id") REFERENCES "public"."material"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
ALTER TABLE "recipe" ADD CONSTRAINT "recipe_version_id_recipe_version_id_fk" FOREIGN KEY ("version_id") REFERENCES "public"."recipe_version"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
ALTER TABLE "recipe_line" ADD CONSTRAINT "recipe_line_version_id_recipe_version_id_fk" FOREIGN KEY ("version_id") REFERENCES "public"."recipe_version"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
ALTER TABLE "movement" ADD CONSTRAINT "movement_into_lot_id_lot_id_fk" FOREIGN KEY ("into_lot_id") REFERENCES "public"."lot"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
CREATE INDEX "act_kind" ON "act" USING btree ("kind","id");
--> statement-breakpoint
CREATE INDEX "product_recipe" ON "product" USING btree ("recipe_id","position");
--> statement-breakpoint
CREATE INDEX "recipe_line_version" ON "recipe_line" USING btree ("version_id","position");
--> statement-breakpoint
CREATE INDEX "recipe_line_material" ON "recipe_line" USING btree ("material_id");
--> statement-breakpoint
ALTER TABLE "act" DROP COLUMN "before";
--> statement-breakpoint
ALTER TABLE "batch" DROP COLUMN "product_id";
--> statement-breakpoint
ALTER TABLE "batch" DROP COLUMN "planned_units";
--> statement-breakpoint
ALTER TABLE "batch" DROP COLUMN "lot_id";
--> statement-breakpoint
ALTER TABLE "batch" DROP COLUMN "units";
--> statement-breakpoint
ALTER TABLE "product" DROP COLUMN "current";
--> statement-breakpoint
ALTER TABLE "recipe" DROP COLUMN "type";
--> statement-breakpoint
ALTER TABLE "recipe" DROP COLUMN "makes";
--> statement-breakpoint
ALTER TABLE "recipe" DROP COLUMN "total";
--> statement-breakpoint
ALTER TABLE "recipe" DROP COLUMN "loss_bp";
--> statement-breakpoint
ALTER TABLE "recipe" DROP COLUMN "keeps_months";
--> statement-breakpoint
ALTER TABLE "recipe" DROP COLUMN "batch_minutes";
--> statement-breakpoint
ALTER TABLE "recipe" DROP COLUMN "unit_minutes_hundredths";
--> statement-breakpoint
ALTER TABLE "recipe" DROP COLUMN "method";
--> statement-breakpoint
ALTER TABLE "recipe_line" DROP COLUMN "recipe_id";
--> statement-breakpoint
ALTER TABLE "lot" DROP COLUMN "sealed_best_before";
