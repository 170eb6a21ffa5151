import { Tabs } from "radix-ui";
import { PageArea } from "./PageArea";
import { useRoom } from "./useRoom";

type Side = { name: string; content: React.ReactNode };

type Props = {
  /** What lies at the left where there is room: the sketch card, or the lines by number. */
  card: Side;
  page: React.ReactNode;
  /** What stands below the page, and where there is little room beside the ledger's tab. */
  more?: Side;
  /** What stands below the page reaches below the card too, where there is room. */
  moreAcross?: boolean;
  ledger: React.ReactNode;
  /** Widths of the card and the ledger, in pixels. */
  widths: readonly [number, number];
};

/** A station's frame: the page comes first. With room the card stands left of it and the ledger right; with less they share one column;
 * on a tablet or phone they lie below it, one open at a time. */
export function Workbench({ card, page, more, moreAcross = false, ledger, widths }: Props) {
  const room = useRoom();
  if (room === "wide" && moreAcross) {
    return (
      <main
        className="grid min-h-0 flex-1 gap-3.5 p-3.5 *:max-h-full *:min-h-0 *:relative *:self-start *:overflow-y-auto"
        style={{ gridTemplateColumns: `minmax(0,1fr) ${widths[1]}px` }}
      >
        <div className="grid content-start gap-3.5" style={{ gridTemplateColumns: `${widths[0]}px minmax(0,1fr)` }}>
          <div>{card.content}</div>
          <PageArea>{page}</PageArea>
          <div className="col-span-2">{more?.content}</div>
        </div>
        <aside aria-label="Ledger">{ledger}</aside>
      </main>
    );
  }
  if (room === "wide") {
    return (
      <main
        className="grid min-h-0 flex-1 gap-3.5 p-3.5 *:max-h-full *:min-h-0 *:relative *:self-start *:overflow-y-auto"
        style={{ gridTemplateColumns: `${widths[0]}px minmax(0,1fr) ${widths[1]}px` }}
      >
        <div>{card.content}</div>
        <div className="grid content-start gap-3">
          <PageArea>{page}</PageArea>
          {more?.content}
        </div>
        <aside aria-label="Ledger">{ledger}</aside>
      </main>
    );
  }
  const medium = room === "medium";
  return (
    <main
      className={
        medium
          ? "grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_372px] gap-3 p-3 *:max-h-full *:min-h-0 *:relative *:self-start *:overflow-y-auto"
          : "grid grid-cols-[minmax(0,1fr)] content-start gap-3 p-2.5"
      }
    >
      <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-3">
        <PageArea className="min-w-0">{page}</PageArea>
        {medium && more?.content}
      </div>
      <Tabs.Root defaultValue="ledger" className="min-w-0" activationMode="manual">
        <Tabs.List aria-label="Beside the page" className="sticky top-0 z-10 flex gap-1.5 bg-worktop pb-2">
          <Tabs.Trigger value="ledger" className="button min-h-[44px] flex-1 justify-center">
            Ledger
          </Tabs.Trigger>
          <Tabs.Trigger value="card" className="button min-h-[44px] flex-1 justify-center">
            {card.name}
          </Tabs.Trigger>
          {!medium && more && (
            <Tabs.Trigger value="more" className="button min-h-[44px] flex-1 justify-center">
              {more.name}
            </Tabs.Trigger>
          )}
        </Tabs.List>
        <Tabs.Content value="ledger">
          <aside aria-label="Ledger">{ledger}</aside>
        </Tabs.Content>
        <Tabs.Content value="card">{card.content}</Tabs.Content>
        {!medium && more && <Tabs.Content value="more">{more.content}</Tabs.Content>}
      </Tabs.Root>
    </main>
  );
}
