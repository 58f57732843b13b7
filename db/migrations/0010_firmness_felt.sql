CREATE TABLE "firmness_test" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "firmness_test_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"version_id" integer NOT NULL,
	"day" date NOT NULL,
	"celsius" real NOT NULL,
	"feel" text NOT NULL,
	"note" text DEFAULT '' NOT NULL
);
--> statement-breakpoint
ALTER TABLE "firmness_test" ADD CONSTRAINT "firmness_test_version_id_recipe_version_id_fk" FOREIGN KEY ("version_id") REFERENCES "public"."recipe_version"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "firmness_test_version" ON "firmness_test" USING btree ("version_id");