CREATE TABLE "harvest" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "harvest_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"material_id" integer NOT NULL,
	"picked" date NOT NULL,
	"place" text DEFAULT '' NOT NULL,
	"fresh" bigint NOT NULL,
	"method" text NOT NULL,
	"celsius" real,
	"minutes" integer DEFAULT 0 NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"dry" bigint,
	"snaps" boolean,
	"valued_by" text,
	"value" bigint,
	"lot_id" integer,
	"dried_act_id" integer
);
--> statement-breakpoint
CREATE TABLE "harvest_check" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "harvest_check_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"harvest_id" integer NOT NULL,
	"day" date NOT NULL,
	"weight" bigint NOT NULL,
	"celsius" real,
	"note" text DEFAULT '' NOT NULL
);
--> statement-breakpoint
CREATE TABLE "jar" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "jar_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"number" text NOT NULL,
	"name" text NOT NULL,
	"method" text NOT NULL,
	"method_name" text DEFAULT '' NOT NULL,
	"vessel" text DEFAULT '' NOT NULL,
	"vessel_ml" real,
	"day" date NOT NULL,
	"earliest" date NOT NULL,
	"best" date NOT NULL,
	"latest" date NOT NULL,
	"wished" date,
	"heat_minutes" integer,
	"heat_on" timestamp with time zone,
	"why" text DEFAULT '' NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"filled_act_id" integer,
	"strained_act_id" integer,
	"spoiled_act_id" integer,
	"back" bigint,
	"second_back" bigint,
	"sediment" bigint,
	"herb_out" bigint,
	"pressed" boolean,
	"expected" bigint NOT NULL,
	CONSTRAINT "jar_number_unique" UNIQUE("number")
);
--> statement-breakpoint
CREATE TABLE "jar_event" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "jar_event_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"jar_id" integer NOT NULL,
	"kind" text NOT NULL,
	"day" date NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"celsius" real,
	"note" text DEFAULT '' NOT NULL,
	"attachment_id" integer,
	"act_id" integer
);
--> statement-breakpoint
CREATE TABLE "jar_part" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "jar_part_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"jar_id" integer NOT NULL,
	"act_id" integer NOT NULL,
	"material_id" integer NOT NULL,
	"lot_id" integer NOT NULL,
	"role" text NOT NULL,
	"cut" text,
	"qty" bigint NOT NULL
);
--> statement-breakpoint
CREATE TABLE "material_use" (
	"material_id" integer NOT NULL,
	"month" date NOT NULL,
	"used" bigint NOT NULL,
	CONSTRAINT "material_use_material_id_month_pk" PRIMARY KEY("material_id","month")
);
--> statement-breakpoint
CREATE TABLE "attachment" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "attachment_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"purchase_id" integer,
	"jar_id" integer,
	"name" text NOT NULL,
	"mime" text NOT NULL,
	"bytes" "bytea" NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "offer" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "offer_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"material_id" integer NOT NULL,
	"supplier" text NOT NULL,
	"pack_size" text NOT NULL,
	"qty" bigint NOT NULL,
	"price" bigint NOT NULL,
	"postage" bigint NOT NULL,
	"seen" date NOT NULL
);
--> statement-breakpoint
CREATE TABLE "stock_count" (
	"lot_id" integer PRIMARY KEY NOT NULL,
	"expected" bigint NOT NULL,
	"counted" bigint NOT NULL,
	"note" text DEFAULT '' NOT NULL
);
--> statement-breakpoint
DROP INDEX "lot_on_hand";--> statement-breakpoint
ALTER TABLE "purchase_line" ALTER COLUMN "lot_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "act" ADD COLUMN "before" jsonb;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "reorder_by" text DEFAULT 'never' NOT NULL;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "botanical" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "melt_from" real;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "melt_to" real;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "keeps_sealed" integer;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "keeps_opened" integer;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "vegan" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "refined" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "kept" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "cautions" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "library_key" text;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "oil_kept" real;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "brim_ml" real;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "usable_ml" real;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "inner_mm" real;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "fill_mm" real;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "empty_mg" bigint;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "made_of" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "lid_id" integer;--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "retired" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "opened" date;--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "sealed_best_before" date;--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "dryness" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "grown" integer;--> statement-breakpoint
ALTER TABLE "movement" ADD COLUMN "jar_id" integer;--> statement-breakpoint
ALTER TABLE "purchase" ADD COLUMN "tax" bigint NOT NULL DEFAULT 0;--> statement-breakpoint
ALTER TABLE "purchase" ALTER COLUMN "tax" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "purchase" ADD COLUMN "discount" bigint NOT NULL DEFAULT 0;--> statement-breakpoint
ALTER TABLE "purchase" ALTER COLUMN "discount" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "purchase" ADD COLUMN "spread_by" text DEFAULT 'value' NOT NULL;--> statement-breakpoint
ALTER TABLE "purchase" ADD COLUMN "currency" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "purchase" ADD COLUMN "rate" integer DEFAULT 1000000 NOT NULL;--> statement-breakpoint
ALTER TABLE "purchase" ADD COLUMN "note" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "purchase_line" ADD COLUMN "material_id" integer;--> statement-breakpoint
ALTER TABLE "purchase_line" ADD COLUMN "arrived_act_id" integer;--> statement-breakpoint
UPDATE "purchase_line" SET "material_id" = "lot"."material_id" FROM "lot" WHERE "lot"."id" = "purchase_line"."lot_id";--> statement-breakpoint
UPDATE "purchase_line" SET "arrived_act_id" = "purchase"."act_id" FROM "purchase" WHERE "purchase"."id" = "purchase_line"."purchase_id";--> statement-breakpoint
ALTER TABLE "purchase_line" ALTER COLUMN "material_id" SET NOT NULL;--> statement-breakpoint
UPDATE "material" SET "reorder_by" = 'hand' WHERE "reorder_at" IS NOT NULL;--> statement-breakpoint
ALTER TABLE "harvest" ADD CONSTRAINT "harvest_material_id_material_id_fk" FOREIGN KEY ("material_id") REFERENCES "public"."material"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "harvest" ADD CONSTRAINT "harvest_lot_id_lot_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lot"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "harvest" ADD CONSTRAINT "harvest_dried_act_id_act_id_fk" FOREIGN KEY ("dried_act_id") REFERENCES "public"."act"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "harvest_check" ADD CONSTRAINT "harvest_check_harvest_id_harvest_id_fk" FOREIGN KEY ("harvest_id") REFERENCES "public"."harvest"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "jar" ADD CONSTRAINT "jar_filled_act_id_act_id_fk" FOREIGN KEY ("filled_act_id") REFERENCES "public"."act"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "jar" ADD CONSTRAINT "jar_strained_act_id_act_id_fk" FOREIGN KEY ("strained_act_id") REFERENCES "public"."act"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "jar" ADD CONSTRAINT "jar_spoiled_act_id_act_id_fk" FOREIGN KEY ("spoiled_act_id") REFERENCES "public"."act"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "jar_event" ADD CONSTRAINT "jar_event_jar_id_jar_id_fk" FOREIGN KEY ("jar_id") REFERENCES "public"."jar"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "jar_event" ADD CONSTRAINT "jar_event_act_id_act_id_fk" FOREIGN KEY ("act_id") REFERENCES "public"."act"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "jar_part" ADD CONSTRAINT "jar_part_jar_id_jar_id_fk" FOREIGN KEY ("jar_id") REFERENCES "public"."jar"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "jar_part" ADD CONSTRAINT "jar_part_act_id_act_id_fk" FOREIGN KEY ("act_id") REFERENCES "public"."act"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "jar_part" ADD CONSTRAINT "jar_part_material_id_material_id_fk" FOREIGN KEY ("material_id") REFERENCES "public"."material"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "jar_part" ADD CONSTRAINT "jar_part_lot_id_lot_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lot"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "material_use" ADD CONSTRAINT "material_use_material_id_material_id_fk" FOREIGN KEY ("material_id") REFERENCES "public"."material"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "attachment" ADD CONSTRAINT "attachment_purchase_id_purchase_id_fk" FOREIGN KEY ("purchase_id") REFERENCES "public"."purchase"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "attachment" ADD CONSTRAINT "attachment_jar_id_jar_id_fk" FOREIGN KEY ("jar_id") REFERENCES "public"."jar"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "offer" ADD CONSTRAINT "offer_material_id_material_id_fk" FOREIGN KEY ("material_id") REFERENCES "public"."material"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stock_count" ADD CONSTRAINT "stock_count_lot_id_lot_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lot"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "harvest_material" ON "harvest" USING btree ("material_id");--> statement-breakpoint
CREATE INDEX "harvest_lot" ON "harvest" USING btree ("lot_id");--> statement-breakpoint
CREATE INDEX "harvest_check_harvest" ON "harvest_check" USING btree ("harvest_id");--> statement-breakpoint
CREATE INDEX "jar_filled" ON "jar" USING btree ("filled_act_id");--> statement-breakpoint
CREATE INDEX "jar_strained" ON "jar" USING btree ("strained_act_id");--> statement-breakpoint
CREATE INDEX "jar_event_jar" ON "jar_event" USING btree ("jar_id","id");--> statement-breakpoint
CREATE INDEX "jar_part_jar" ON "jar_part" USING btree ("jar_id");--> statement-breakpoint
CREATE INDEX "jar_part_lot" ON "jar_part" USING btree ("lot_id");--> statement-breakpoint
CREATE INDEX "jar_part_act" ON "jar_part" USING btree ("act_id");--> statement-breakpoint
CREATE INDEX "attachment_purchase" ON "attachment" USING btree ("purchase_id");--> statement-breakpoint
CREATE INDEX "attachment_jar" ON "attachment" USING btree ("jar_id");--> statement-breakpoint
CREATE INDEX "offer_material" ON "offer" USING btree ("material_id");--> statement-breakpoint
ALTER TABLE "material" ADD CONSTRAINT "material_lid_id_material_id_fk" FOREIGN KEY ("lid_id") REFERENCES "public"."material"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "movement" ADD CONSTRAINT "movement_jar_id_jar_id_fk" FOREIGN KEY ("jar_id") REFERENCES "public"."jar"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "purchase_line" ADD CONSTRAINT "purchase_line_material_id_material_id_fk" FOREIGN KEY ("material_id") REFERENCES "public"."material"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "purchase_line" ADD CONSTRAINT "purchase_line_arrived_act_id_act_id_fk" FOREIGN KEY ("arrived_act_id") REFERENCES "public"."act"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "lot_best_before" ON "lot" USING btree ("best_before") WHERE "lot"."on_hand" > 0;--> statement-breakpoint
CREATE INDEX "movement_jar" ON "movement" USING btree ("jar_id");--> statement-breakpoint
CREATE INDEX "purchase_day" ON "purchase" USING btree ("day");--> statement-breakpoint
CREATE INDEX "purchase_line_material" ON "purchase_line" USING btree ("material_id");--> statement-breakpoint
CREATE INDEX "purchase_line_act" ON "purchase_line" USING btree ("arrived_act_id");--> statement-breakpoint
CREATE INDEX "lot_on_hand" ON "lot" USING btree ("material_id") WHERE "lot"."on_hand" > 0;--> statement-breakpoint
ALTER TABLE "movement" ADD COLUMN "restates" integer;--> statement-breakpoint
ALTER TABLE "movement" ADD CONSTRAINT "movement_restates_movement_id_fk" FOREIGN KEY ("restates") REFERENCES "public"."movement"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "movement_restates" ON "movement" USING btree ("restates");--> statement-breakpoint
CREATE INDEX "movement_made" ON "movement" USING btree ("lot_id") WHERE "movement"."reason" in ('strained', 'blended', 'harvested');--> statement-breakpoint
CREATE INDEX "batch_open" ON "batch" USING btree ("id") WHERE "batch"."poured_act_id" is null and "batch"."cleared_act_id" is null;--> statement-breakpoint
CREATE INDEX "material_use_month" ON "material_use" USING btree ("month");