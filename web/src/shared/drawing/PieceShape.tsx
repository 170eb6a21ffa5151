// Pieces to decorate with, by their form and colours, about their own middle.

export type PieceLook = { form: string; colours: readonly string[]; name: string; seeThrough: boolean };

const INK = "#3a3226";

type Props = { look: PieceLook; w: number; h: number };

/** One piece, so many pixels across and down, about (0, 0). */
export function PieceShape({ look, w, h }: Props) {
  const fill = look.colours[0] ?? "#ffffff";
  const second = look.colours[1] ?? fill;
  const [x, y] = [w / 2, h / 2];
  const line = { stroke: INK, strokeOpacity: 0.55, strokeWidth: 0.8 };
  return (
    <g opacity={look.seeThrough ? 0.72 : 1}>
      <path d={outline(look.form, x, y)} fill={fill} {...line} strokeLinejoin="round" />
      <Inner form={look.form} name={look.name} fill={fill} second={second} x={x} y={y} />
    </g>
  );
}

function Inner({
  form,
  name,
  fill,
  second,
  x,
  y,
}: {
  form: string;
  name: string;
  fill: string;
  second: string;
  x: number;
  y: number;
}) {
  switch (form) {
    case "button":
      return (
        <g fill={INK} fillOpacity={0.6}>
          <circle r={x * 0.78} fill="none" stroke={INK} strokeOpacity={0.4} />
          {[-1, 1].flatMap((a) =>
            [-1, 1].map((b) => <circle key={`${a} ${b}`} cx={a * x * 0.25} cy={b * y * 0.25} r={x * 0.11} />),
          )}
        </g>
      );
    case "kite":
      return (
        <g>
          <path d={`M0 ${-y}L${x} ${-y * 0.3}L0 ${-y * 0.3}Z M0 ${y}L${-x} ${-y * 0.3}L0 ${-y * 0.3}Z`} fill={second} />
          <path
            d={`M0 ${-y}V${y}M${-x} ${-y * 0.3}H${x}`}
            stroke={INK}
            strokeOpacity={0.6}
            strokeWidth={0.7}
            fill="none"
          />
        </g>
      );
    case "leaf":
      return <path d={`M${-x} 0H${x * 0.86}`} stroke={INK} strokeOpacity={0.5} strokeWidth={0.9} />;
    case "tag":
      return <circle cy={-y * 0.76} r={Math.max(1.2, x * 0.16)} fill="#ffffff" stroke={INK} strokeOpacity={0.6} />;
    case "doily":
      return <circle r={x * 0.58} fill="none" stroke={INK} strokeOpacity={0.35} strokeDasharray="2 2" />;
    case "phrase":
      return (
        <text
          textAnchor="middle"
          dy="0.34em"
          fontSize={Math.min(y * 1.1, (x * 3.4) / Math.max(4, name.length))}
          fontWeight={700}
          fill={isDark(fill) ? "#ffffff" : "#17263b"}
        >
          {name.toLowerCase()}
        </text>
      );
    default:
      return null;
  }
}

/** The outline of a form, reaching so far to each side. */
export function outline(form: string, x: number, y: number): string {
  const point = (angle: number, by: number) =>
    `${(Math.sin(angle) * x * by).toFixed(2)} ${(-Math.cos(angle) * y * by).toFixed(2)}`;
  const star = (tips: number, inner: number) =>
    `M${[...Array(tips * 2).keys()].map((n) => point((n * Math.PI) / tips, n % 2 === 0 ? 1 : inner)).join("L")}Z`;
  const ellipse = `M${-x} 0A${x} ${y} 0 1 1 ${x} 0A${x} ${y} 0 1 1 ${-x} 0Z`;
  switch (form) {
    case "round":
    case "button":
      return ellipse;
    case "doily":
      return star(16, 0.9);
    case "flower":
      return star(7, 0.6);
    case "star":
      return star(5, 0.45);
    case "heart":
      return `M0 ${y}C${-x * 1.5} ${-y * 0.1} ${-x * 0.7} ${-y * 1.5} 0 ${-y * 0.45}C${x * 0.7} ${-y * 1.5} ${x * 1.5} ${-y * 0.1} 0 ${y}Z`;
    case "leaf":
      return `M${-x} 0C${-x * 0.4} ${-y * 1.3} ${x * 0.5} ${-y * 1.2} ${x} 0C${x * 0.5} ${y * 1.2} ${-x * 0.4} ${y * 1.3} ${-x} 0Z`;
    case "tag":
      return `M${-x} ${-y * 0.6}L${-x * 0.45} ${-y}H${x * 0.45}L${x} ${-y * 0.6}V${y}H${-x}Z`;
    case "kite":
      return `M0 ${-y}L${x} ${-y * 0.3}L0 ${y}L${-x} ${-y * 0.3}Z`;
    case "flag":
      return `M${-x} ${-y}H${x}V${y}L0 ${y * 0.5}L${-x} ${y}Z`;
    case "sledge":
      return `M${-x} ${-y * 0.4}H${x * 0.8}V${-y * 0.1}H${x * 0.5}V${y * 0.5}H${x}Q${x} ${y} ${x * 0.6} ${y}H${-x * 0.8}V${y * 0.5}H${-x * 0.5}V${-y * 0.1}H${-x}Z`;
    default:
      return `M${-x} ${-y}H${x}V${y}H${-x}Z`;
  }
}

function isDark(colour: string): boolean {
  const channel = (at: number) => Number.parseInt(colour.slice(at, at + 2), 16);
  return 0.3 * channel(1) + 0.59 * channel(3) + 0.11 * channel(5) < 140;
}
