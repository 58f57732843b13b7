CREATE TABLE "zelbin"."batch_sent" (
	"batch_id" integer NOT NULL,
	"key" uuid NOT NULL,
	CONSTRAINT "batch_sent_batch_id_key_pk" PRIMARY KEY("batch_id","key")
);
--> statement-breakpoint
ALTER TABLE "zelbin"."batch_size" ADD COLUMN "ladled" bigint;--> statement-breakpoint
ALTER TABLE "zelbin"."batch_sent" ADD CONSTRAINT "batch_sent_batch_id_batch_id_fk" FOREIGN KEY ("batch_id") REFERENCES "zelbin"."batch"("id") ON DELETE no action ON UPDATE no action;