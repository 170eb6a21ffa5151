import type { StashItemView } from "@/api/client";
import { Length } from "@/shared/ui/Length";
import { drawnSize, ThingDrawing } from "./ThingDrawing";
import { countText } from "./words";

/** Everything lies in the stash at one scale, in pixels an inch. */
export const PER_INCH = 8.6;

/** A thing with its name and how many there are. */
export function Thing({ thing, on, onTake }: { thing: StashItemView; on: boolean; onTake: () => void }) {
  const { item } = thing;
  const isTool = item.kind === "tool";
  const width = Math.max(98, drawnSize(thing, PER_INCH).w + 10);
  return (
    <li
      className="text-[13px] leading-tight [content-visibility:auto] [contain-intrinsic-size:auto_150px]"
      style={{ width }}
    >
      <button
        type="button"
        aria-pressed={on}
        className={`block w-full cursor-pointer rounded-[3px] text-left hover:bg-tray ${on ? "outline-2 outline-ink outline-offset-2" : ""}`}
        onClick={onTake}
      >
        {isTool ? null : item.size && item.kind !== "embellishment" ? (
          <ThingDrawing thing={thing} perInch={PER_INCH} />
        ) : (
          <Counted thing={thing} />
        )}
        <span className="mt-1 block truncate font-semibold" title={item.name}>
          {item.name}
        </span>
        <span className="text-second">{isTool ? <ToolWords thing={thing} /> : countText(thing)}</span>
      </button>
    </li>
  );
}

const MOST_DRAWN = 12;

/** Small things in their count, in their colours. */
function Counted({ thing }: { thing: StashItemView }) {
  const { item } = thing;
  const { w, h } = drawnSize(thing, PER_INCH * 1.4);
  const colours = item.a.colours.map((c) => c.colour);
  const count = Math.min(MOST_DRAWN, item.count);
  const across = Math.min(4, count);
  const round = item.size?.w === item.size?.h;
  return (
    <svg width={Math.max(60, across * (w + 3))} height={Math.ceil(count / 4) * (h + 3) + 2} aria-hidden="true">
      {[...Array(count).keys()].map((n) => {
        const [x, y] = [(n % 4) * (w + 3) + 1, Math.floor(n / 4) * (h + 3) + 1];
        const fill = colours[n % Math.max(1, colours.length)] ?? "#ffffff";
        return round ? (
          <circle key={n} cx={x + w / 2} cy={y + h / 2} r={w / 2 - 1} fill={fill} stroke="#51617a" />
        ) : (
          <rect key={n} x={x} y={y} width={w - 1} height={h - 1} rx={3} fill={fill} stroke="#51617a" />
        );
      })}
    </svg>
  );
}

/** What a tool can do. */
function ToolWords({ thing }: { thing: StashItemView }) {
  const { reach, finest, cuts, unit: name } = thing.item;
  const unit = name === "mm" ? "mm" : "in";
  if (reach)
    return (
      <>
        reach <Length value={reach} unit={unit} />
        {finest ? (
          <>
            , sets to <Length value={finest} unit={unit} />
          </>
        ) : null}
      </>
    );
  const cut = cuts?.[0];
  if (cut)
    return (
      <>
        cuts <Length value={cut.w} unit={unit} /> × <Length value={cut.h} unit={unit} withUnit />
      </>
    );
  return <>by hand</>;
}
