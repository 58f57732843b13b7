-- Everything of Zelbin's moves into a schema of its own; whatever else is in public stays there. The tables take their indexes and
-- sequences with them. Steps before this one work in public, this one and later ones here.
CREATE SCHEMA IF NOT EXISTS zelbin;
--> statement-breakpoint
ALTER TABLE public.act SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.act_subject SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.attachment SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.batch SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.batch_check SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.batch_event SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.batch_sample SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.batch_size SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.batch_take SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.contact SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.contact_name SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.draft SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.firmness_test SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.gift_item SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.gift_order SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.gift_wrap SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.harvest SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.harvest_check SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.jar SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.jar_event SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.jar_part SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.lot SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.market_day SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.market_line SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.material SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.material_use SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.movement SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.offer SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.price SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.product SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.product_addition SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.product_packaging SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.purchase SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.purchase_line SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.recall SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.recall_lot SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.recall_told SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.recipe SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.recipe_line SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.recipe_version SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.settings SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.stock_count SET SCHEMA zelbin;
--> statement-breakpoint
ALTER TABLE public.workshop SET SCHEMA zelbin;
--> statement-breakpoint
ALTER VIEW public.lot_link SET SCHEMA zelbin;
--> statement-breakpoint
ALTER VIEW public.standing_act SET SCHEMA zelbin;
--> statement-breakpoint
ALTER FUNCTION public.movement_is_kept() SET SCHEMA zelbin;
--> statement-breakpoint
ALTER FUNCTION public.movement_moves_lot() SET SCHEMA zelbin;
--> statement-breakpoint
ALTER FUNCTION public.lot_only_through_ledger() SET SCHEMA zelbin;
--> statement-breakpoint
ALTER FUNCTION public.movement_counts_use() SET SCHEMA zelbin;
--> statement-breakpoint
ALTER FUNCTION public.meet_contact() SET SCHEMA zelbin;
--> statement-breakpoint
ALTER FUNCTION public.act_is_kept() SET SCHEMA zelbin;
--> statement-breakpoint
SET LOCAL search_path TO zelbin;
