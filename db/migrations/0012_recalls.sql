CREATE TABLE "recall" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "recall_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"begun_act_id" integer,
	"rehearsal" boolean NOT NULL,
	"reason" text NOT NULL,
	"to_do" text NOT NULL,
	"closed_act_id" integer,
	"came" text DEFAULT '' NOT NULL
);
--> statement-breakpoint
CREATE TABLE "recall_lot" (
	"recall_id" integer NOT NULL,
	"lot_id" integer NOT NULL,
	"start" boolean NOT NULL,
	"held" boolean NOT NULL,
	CONSTRAINT "recall_lot_recall_id_lot_id_pk" PRIMARY KEY("recall_id","lot_id")
);
--> statement-breakpoint
CREATE TABLE "recall_told" (
	"recall_id" integer NOT NULL,
	"contact_id" integer NOT NULL,
	"told_on" date,
	"back" integer DEFAULT 0 NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	CONSTRAINT "recall_told_recall_id_contact_id_pk" PRIMARY KEY("recall_id","contact_id"),
	CONSTRAINT "recall_back" CHECK ("recall_told"."back" >= 0)
);
--> statement-breakpoint
ALTER TABLE "recall" ADD CONSTRAINT "recall_begun_act_id_act_id_fk" FOREIGN KEY ("begun_act_id") REFERENCES "public"."act"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recall" ADD CONSTRAINT "recall_closed_act_id_act_id_fk" FOREIGN KEY ("closed_act_id") REFERENCES "public"."act"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recall_lot" ADD CONSTRAINT "recall_lot_recall_id_recall_id_fk" FOREIGN KEY ("recall_id") REFERENCES "public"."recall"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recall_lot" ADD CONSTRAINT "recall_lot_lot_id_lot_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lot"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recall_told" ADD CONSTRAINT "recall_told_recall_id_recall_id_fk" FOREIGN KEY ("recall_id") REFERENCES "public"."recall"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recall_told" ADD CONSTRAINT "recall_told_contact_id_contact_id_fk" FOREIGN KEY ("contact_id") REFERENCES "public"."contact"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "recall_open" ON "recall" USING btree ("id") WHERE "recall"."closed_act_id" is null;