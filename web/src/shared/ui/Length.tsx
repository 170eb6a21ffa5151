import { BlockBadge, inPieces, useBlockNumbers } from "@/shared/drawing/BlockNumbers";
import { rulerParts, toTicks, type Unit } from "@/shared/lengths/length";

/** A length as a ruler shows it; the fraction alone is set as one. */
export function Length({ value, unit, withUnit = false }: { value: number; unit: Unit; withUnit?: boolean }) {
  const { sign, whole, fraction } = rulerParts(toTicks(value, unit), unit);
  return (
    <span className="whitespace-nowrap">
      {sign && "−"}
      {whole}
      {fraction && (
        <>
          {whole && "\u00a0"}
          <span className="frac">{fraction}</span>
        </>
      )}
      {withUnit && ` ${unit}`}
    </span>
  );
}

/** The same inside an SVG text. */
export function LengthSpans({ value, unit }: { value: number; unit: Unit }) {
  const { sign, whole, fraction } = rulerParts(toTicks(value, unit), unit);
  return (
    <>
      {sign && "−"}
      {whole}
      {fraction && (
        <>
          {whole && "\u00a0"}
          <tspan style={{ fontFeatureSettings: '"frac", "tnum"' }}>{fraction}</tspan>
        </>
      )}
    </>
  );
}

const LINKED = /(\d+\/\d+)/;

/** A sentence with its fractions set as fractions, and blocks by their numbers. */
export function Sentence({ text }: { text: string }) {
  const numbers = useBlockNumbers();
  let at = 0;
  return inPieces(text, numbers).flatMap((piece) => {
    if (typeof piece !== "string") {
      at += 1;
      return <BlockBadge key={at} number={piece.number} />;
    }
    return piece.split(LINKED).map((part) => {
      at += part.length + 1;
      return LINKED.test(part) ? (
        <span key={at} className="frac">
          {part}
        </span>
      ) : (
        part
      );
    });
  });
}
