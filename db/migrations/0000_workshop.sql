CREATE TABLE "act" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "act_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"kind" text NOT NULL,
	"day" date NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"token" uuid,
	"summary" text DEFAULT '' NOT NULL,
	"path" text DEFAULT '/' NOT NULL,
	"undoes" integer,
	CONSTRAINT "act_token_unique" UNIQUE("token"),
	CONSTRAINT "act_undoes_unique" UNIQUE("undoes")
);
--> statement-breakpoint
CREATE TABLE "batch" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "batch_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"recipe_id" integer NOT NULL,
	"product_id" integer NOT NULL,
	"day" date NOT NULL,
	"planned_mg" bigint NOT NULL,
	"planned_units" integer NOT NULL,
	"poured_act_id" integer,
	"lot_id" integer,
	"units" integer,
	"leftover" bigint,
	"minutes" integer,
	"hourly" bigint,
	"overhead_hourly" bigint,
	"cleared_act_id" integer,
	"note" text DEFAULT '' NOT NULL
);
--> statement-breakpoint
CREATE TABLE "batch_take" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "batch_take_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"batch_id" integer NOT NULL,
	"position" integer NOT NULL,
	"material_id" integer NOT NULL,
	"lot_id" integer NOT NULL,
	"planned" bigint NOT NULL,
	"weighed" bigint
);
--> statement-breakpoint
CREATE TABLE "gift_item" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "gift_item_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"gift_order_id" integer NOT NULL,
	"product_id" integer NOT NULL,
	"units" integer NOT NULL,
	"price" bigint NOT NULL
);
--> statement-breakpoint
CREATE TABLE "gift_order" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "gift_order_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"customer" text NOT NULL,
	"due" date NOT NULL,
	"extra" bigint NOT NULL,
	"discount_bp" integer NOT NULL,
	"wrap_minutes" integer NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"packed_act_id" integer
);
--> statement-breakpoint
CREATE TABLE "gift_wrap" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "gift_wrap_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"gift_order_id" integer NOT NULL,
	"material_id" integer NOT NULL,
	"pieces" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "market_day" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "market_day_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"name" text NOT NULL,
	"day" date NOT NULL,
	"stall_fee" bigint NOT NULL,
	"travel" bigint NOT NULL,
	"by_card" bigint NOT NULL,
	"card_fee_bp" integer NOT NULL,
	"minutes" integer NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"closed_act_id" integer
);
--> statement-breakpoint
CREATE TABLE "market_line" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "market_line_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"market_day_id" integer NOT NULL,
	"lot_id" integer NOT NULL,
	"taken" integer NOT NULL,
	"sold" integer NOT NULL,
	"given" integer NOT NULL,
	"damaged" integer NOT NULL,
	"price" bigint NOT NULL,
	CONSTRAINT "market_line_lot" UNIQUE("market_day_id","lot_id")
);
--> statement-breakpoint
CREATE TABLE "material" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "material_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"inci" text DEFAULT '' NOT NULL,
	"densities" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"drops_per_ml" real,
	"piece_mg" bigint,
	"reorder_at" bigint,
	"allergen" text DEFAULT '' NOT NULL,
	"note" text DEFAULT '' NOT NULL
);
--> statement-breakpoint
CREATE TABLE "price" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "price_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"act_id" integer NOT NULL,
	"product_id" integer NOT NULL,
	"channel" text NOT NULL,
	"price" bigint NOT NULL
);
--> statement-breakpoint
CREATE TABLE "product" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "product_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"recipe_id" integer NOT NULL,
	"fill" bigint NOT NULL,
	"current" boolean DEFAULT true NOT NULL,
	"own_price" bigint,
	CONSTRAINT "product_size" UNIQUE("recipe_id","fill")
);
--> statement-breakpoint
CREATE TABLE "product_packaging" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "product_packaging_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"product_id" integer NOT NULL,
	"material_id" integer NOT NULL,
	"pieces" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "recipe" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "recipe_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"name" text NOT NULL,
	"code" text NOT NULL,
	"type" text NOT NULL,
	"makes" bigint,
	"total" bigint NOT NULL,
	"loss_bp" integer NOT NULL,
	"keeps_months" integer NOT NULL,
	"batch_minutes" integer NOT NULL,
	"unit_minutes_hundredths" integer NOT NULL,
	"method" text DEFAULT '' NOT NULL
);
--> statement-breakpoint
CREATE TABLE "recipe_line" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "recipe_line_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"recipe_id" integer NOT NULL,
	"position" integer NOT NULL,
	"material_id" integer NOT NULL,
	"entered" text NOT NULL,
	"form" text NOT NULL,
	"weight" bigint NOT NULL
);
--> statement-breakpoint
CREATE TABLE "settings" (
	"id" integer PRIMARY KEY NOT NULL,
	"data" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "lot" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "lot_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"number" text NOT NULL,
	"material_id" integer,
	"product_id" integer,
	"supplier_lot" text DEFAULT '' NOT NULL,
	"arrived" date NOT NULL,
	"best_before" date,
	"hold_reason" text,
	"on_hand" bigint DEFAULT 0 NOT NULL,
	"value" bigint DEFAULT 0 NOT NULL,
	CONSTRAINT "lot_number_unique" UNIQUE("number"),
	CONSTRAINT "lot_of_one_thing" CHECK (("lot"."material_id" is null) <> ("lot"."product_id" is null)),
	CONSTRAINT "lot_never_negative" CHECK ("lot"."on_hand" >= 0 and "lot"."value" >= 0)
);
--> statement-breakpoint
CREATE TABLE "movement" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "movement_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"act_id" integer NOT NULL,
	"lot_id" integer NOT NULL,
	"qty" bigint NOT NULL,
	"value" bigint NOT NULL,
	"reason" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"batch_id" integer,
	"market_day_id" integer,
	"gift_order_id" integer
);
--> statement-breakpoint
CREATE TABLE "purchase" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "purchase_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"act_id" integer NOT NULL,
	"supplier" text NOT NULL,
	"day" date NOT NULL,
	"postage" bigint NOT NULL
);
--> statement-breakpoint
CREATE TABLE "purchase_line" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "purchase_line_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"purchase_id" integer NOT NULL,
	"lot_id" integer NOT NULL,
	"packs" integer NOT NULL,
	"pack_size" text NOT NULL,
	"qty" bigint NOT NULL,
	"price" bigint NOT NULL,
	"landed" bigint NOT NULL,
	CONSTRAINT "purchase_line_lotId_unique" UNIQUE("lot_id")
);
--> statement-breakpoint
ALTER TABLE "act" ADD CONSTRAINT "act_undoes_act_id_fk" FOREIGN KEY ("undoes") REFERENCES "public"."act"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batch" ADD CONSTRAINT "batch_recipe_id_recipe_id_fk" FOREIGN KEY ("recipe_id") REFERENCES "public"."recipe"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batch" ADD CONSTRAINT "batch_product_id_product_id_fk" FOREIGN KEY ("product_id") REFERENCES "public"."product"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batch" ADD CONSTRAINT "batch_poured_act_id_act_id_fk" FOREIGN KEY ("poured_act_id") REFERENCES "public"."act"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batch" ADD CONSTRAINT "batch_cleared_act_id_act_id_fk" FOREIGN KEY ("cleared_act_id") REFERENCES "public"."act"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batch_take" ADD CONSTRAINT "batch_take_batch_id_batch_id_fk" FOREIGN KEY ("batch_id") REFERENCES "public"."batch"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batch_take" ADD CONSTRAINT "batch_take_material_id_material_id_fk" FOREIGN KEY ("material_id") REFERENCES "public"."material"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batch_take" ADD CONSTRAINT "batch_take_lot_id_lot_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lot"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "gift_item" ADD CONSTRAINT "gift_item_gift_order_id_gift_order_id_fk" FOREIGN KEY ("gift_order_id") REFERENCES "public"."gift_order"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "gift_item" ADD CONSTRAINT "gift_item_product_id_product_id_fk" FOREIGN KEY ("product_id") REFERENCES "public"."product"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "gift_order" ADD CONSTRAINT "gift_order_packed_act_id_act_id_fk" FOREIGN KEY ("packed_act_id") REFERENCES "public"."act"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "gift_wrap" ADD CONSTRAINT "gift_wrap_gift_order_id_gift_order_id_fk" FOREIGN KEY ("gift_order_id") REFERENCES "public"."gift_order"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "gift_wrap" ADD CONSTRAINT "gift_wrap_material_id_material_id_fk" FOREIGN KEY ("material_id") REFERENCES "public"."material"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "market_day" ADD CONSTRAINT "market_day_closed_act_id_act_id_fk" FOREIGN KEY ("closed_act_id") REFERENCES "public"."act"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "market_line" ADD CONSTRAINT "market_line_market_day_id_market_day_id_fk" FOREIGN KEY ("market_day_id") REFERENCES "public"."market_day"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "market_line" ADD CONSTRAINT "market_line_lot_id_lot_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lot"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "price" ADD CONSTRAINT "price_act_id_act_id_fk" FOREIGN KEY ("act_id") REFERENCES "public"."act"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "price" ADD CONSTRAINT "price_product_id_product_id_fk" FOREIGN KEY ("product_id") REFERENCES "public"."product"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "product" ADD CONSTRAINT "product_recipe_id_recipe_id_fk" FOREIGN KEY ("recipe_id") REFERENCES "public"."recipe"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "product_packaging" ADD CONSTRAINT "product_packaging_product_id_product_id_fk" FOREIGN KEY ("product_id") REFERENCES "public"."product"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "product_packaging" ADD CONSTRAINT "product_packaging_material_id_material_id_fk" FOREIGN KEY ("material_id") REFERENCES "public"."material"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recipe_line" ADD CONSTRAINT "recipe_line_recipe_id_recipe_id_fk" FOREIGN KEY ("recipe_id") REFERENCES "public"."recipe"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recipe_line" ADD CONSTRAINT "recipe_line_material_id_material_id_fk" FOREIGN KEY ("material_id") REFERENCES "public"."material"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lot" ADD CONSTRAINT "lot_material_id_material_id_fk" FOREIGN KEY ("material_id") REFERENCES "public"."material"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lot" ADD CONSTRAINT "lot_product_id_product_id_fk" FOREIGN KEY ("product_id") REFERENCES "public"."product"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "movement" ADD CONSTRAINT "movement_act_id_act_id_fk" FOREIGN KEY ("act_id") REFERENCES "public"."act"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "movement" ADD CONSTRAINT "movement_lot_id_lot_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lot"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "movement" ADD CONSTRAINT "movement_batch_id_batch_id_fk" FOREIGN KEY ("batch_id") REFERENCES "public"."batch"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "movement" ADD CONSTRAINT "movement_market_day_id_market_day_id_fk" FOREIGN KEY ("market_day_id") REFERENCES "public"."market_day"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "movement" ADD CONSTRAINT "movement_gift_order_id_gift_order_id_fk" FOREIGN KEY ("gift_order_id") REFERENCES "public"."gift_order"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "purchase" ADD CONSTRAINT "purchase_act_id_act_id_fk" FOREIGN KEY ("act_id") REFERENCES "public"."act"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "purchase_line" ADD CONSTRAINT "purchase_line_purchase_id_purchase_id_fk" FOREIGN KEY ("purchase_id") REFERENCES "public"."purchase"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "purchase_line" ADD CONSTRAINT "purchase_line_lot_id_lot_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lot"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "batch_lot" ON "batch" USING btree ("lot_id");--> statement-breakpoint
CREATE INDEX "batch_recipe" ON "batch" USING btree ("recipe_id");--> statement-breakpoint
CREATE INDEX "batch_take_batch" ON "batch_take" USING btree ("batch_id","position");--> statement-breakpoint
CREATE INDEX "gift_item_order" ON "gift_item" USING btree ("gift_order_id");--> statement-breakpoint
CREATE INDEX "gift_order_due" ON "gift_order" USING btree ("due");--> statement-breakpoint
CREATE INDEX "gift_wrap_order" ON "gift_wrap" USING btree ("gift_order_id");--> statement-breakpoint
CREATE INDEX "market_day_day" ON "market_day" USING btree ("day");--> statement-breakpoint
CREATE UNIQUE INDEX "material_name" ON "material" USING btree (lower("name"));--> statement-breakpoint
CREATE INDEX "price_product" ON "price" USING btree ("product_id","channel","id");--> statement-breakpoint
CREATE INDEX "product_packaging_product" ON "product_packaging" USING btree ("product_id");--> statement-breakpoint
CREATE UNIQUE INDEX "recipe_name" ON "recipe" USING btree (lower("name"));--> statement-breakpoint
CREATE UNIQUE INDEX "recipe_code" ON "recipe" USING btree ("code");--> statement-breakpoint
CREATE INDEX "recipe_line_recipe" ON "recipe_line" USING btree ("recipe_id","position");--> statement-breakpoint
CREATE INDEX "lot_material" ON "lot" USING btree ("material_id","arrived");--> statement-breakpoint
CREATE INDEX "lot_product" ON "lot" USING btree ("product_id");--> statement-breakpoint
CREATE INDEX "lot_on_hand" ON "lot" USING btree ("id") WHERE "lot"."on_hand" > 0;--> statement-breakpoint
CREATE INDEX "movement_lot" ON "movement" USING btree ("lot_id","id");--> statement-breakpoint
CREATE INDEX "movement_act" ON "movement" USING btree ("act_id");--> statement-breakpoint
CREATE INDEX "movement_batch" ON "movement" USING btree ("batch_id");--> statement-breakpoint
CREATE INDEX "movement_market" ON "movement" USING btree ("market_day_id");--> statement-breakpoint
CREATE INDEX "movement_gift" ON "movement" USING btree ("gift_order_id");--> statement-breakpoint
CREATE INDEX "purchase_line_purchase" ON "purchase_line" USING btree ("purchase_id");