import type { Unit } from "@/shared/lengths/length";
import { Length } from "./Length";

/** `two pages, 8 1/2 × 11 in` */
export function SizeText({ page, pages, unit }: { page: { w: number; h: number }; pages: number; unit: string }) {
  const known: Unit = unit === "mm" ? "mm" : "in";
  return (
    <>
      {pages === 2 ? "two pages" : "one page"}, <Length value={page.w} unit={known} /> ×{" "}
      <Length value={page.h} unit={known} withUnit />
    </>
  );
}
