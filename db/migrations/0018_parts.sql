CREATE TABLE "product_addition" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "product_addition_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"product_id" integer NOT NULL,
	"material_id" integer NOT NULL,
	"ppm" integer NOT NULL
);
--> statement-breakpoint
ALTER TABLE "batch_size" ADD COLUMN "part_of" integer;--> statement-breakpoint
ALTER TABLE "batch_take" ADD COLUMN "size_id" integer;--> statement-breakpoint
ALTER TABLE "product" ADD COLUMN "variant" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "product_addition" ADD CONSTRAINT "product_addition_product_id_product_id_fk" FOREIGN KEY ("product_id") REFERENCES "public"."product"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "product_addition" ADD CONSTRAINT "product_addition_material_id_material_id_fk" FOREIGN KEY ("material_id") REFERENCES "public"."material"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "product_addition_product" ON "product_addition" USING btree ("product_id");--> statement-breakpoint
CREATE INDEX "product_addition_material" ON "product_addition" USING btree ("material_id");--> statement-breakpoint
ALTER TABLE "batch_size" ADD CONSTRAINT "batch_size_part_of_batch_size_id_fk" FOREIGN KEY ("part_of") REFERENCES "public"."batch_size"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batch_take" ADD CONSTRAINT "batch_take_size_id_batch_size_id_fk" FOREIGN KEY ("size_id") REFERENCES "public"."batch_size"("id") ON DELETE no action ON UPDATE no action;