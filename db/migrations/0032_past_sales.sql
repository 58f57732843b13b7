CREATE TABLE "zelbin"."past_sale" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "zelbin"."past_sale_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"market_day_id" integer NOT NULL,
	"product_id" integer,
	"name" text NOT NULL,
	"units" integer NOT NULL,
	"takings" bigint NOT NULL
);
--> statement-breakpoint
ALTER TABLE "zelbin"."gift_order" ADD COLUMN "handed_over" date;--> statement-breakpoint
ALTER TABLE "zelbin"."market_day" ADD COLUMN "before_books" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "zelbin"."past_sale" ADD CONSTRAINT "past_sale_market_day_id_market_day_id_fk" FOREIGN KEY ("market_day_id") REFERENCES "zelbin"."market_day"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "zelbin"."past_sale" ADD CONSTRAINT "past_sale_product_id_product_id_fk" FOREIGN KEY ("product_id") REFERENCES "zelbin"."product"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "past_sale_day" ON "zelbin"."past_sale" USING btree ("market_day_id");--> statement-breakpoint
CREATE INDEX "past_sale_product" ON "zelbin"."past_sale" USING btree ("product_id");