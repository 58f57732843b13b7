CREATE TABLE "batch_sample" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "batch_sample_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"size_id" integer NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"net" bigint NOT NULL,
	"weighed_by" text NOT NULL,
	"struck_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "batch" ADD COLUMN "net_rule" text;--> statement-breakpoint
ALTER TABLE "batch_sample" ADD CONSTRAINT "batch_sample_size_id_batch_size_id_fk" FOREIGN KEY ("size_id") REFERENCES "public"."batch_size"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "batch_sample_size" ON "batch_sample" USING btree ("size_id","id");