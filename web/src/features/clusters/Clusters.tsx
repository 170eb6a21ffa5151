import type { LaidClusterDoc } from "@/api/client";
import { Failed } from "@/shared/ui/Failed";

type Props = {
  clusters: readonly LaidClusterDoc[];
  numberOf: (block: string) => string;
  picked: string | undefined;
  mayChange: boolean;
  sharing: boolean;
  failed: Error | null;
  onPick: (block: string) => void;
  onSize: (cluster: LaidClusterDoc, size: string) => void;
  onShare: () => void;
  onShuffle: () => void;
};

const COUNTS = ["No clusters", "One cluster", "Two clusters", "Three clusters", "Four clusters", "Five clusters"];

/** The page's clusters: how large, how many pieces; sharing pieces out, and laying them another way. */
export function Clusters(props: Props) {
  const { clusters, numberOf, picked, mayChange, sharing, failed, onPick, onSize, onShare, onShuffle } = props;
  const together = clusters.reduce((sum, c) => sum + c.pieces.length, 0);
  return (
    <section aria-labelledby="clusters" className="mt-3 grid gap-2">
      <h2 id="clusters" className="text-[17px]">
        {COUNTS[clusters.length] ?? `${clusters.length} clusters`}
      </h2>
      {clusters.length === 0 && <p className="text-second">The sketch has none. The Sketch station can add one.</p>}
      {clusters.length > 0 && (
        <table className="w-full text-[14px]">
          <tbody>
            {clusters.map((cluster) => (
              <tr
                key={cluster.block}
                className={`border-hairline border-t ${picked === cluster.block ? "bg-lit" : ""}`}
              >
                <td className="py-1">
                  <button
                    type="button"
                    aria-pressed={picked === cluster.block}
                    aria-label={`Cluster ${numberOf(cluster.block)}`}
                    className="grid h-7 min-w-7 place-items-center rounded-full border border-ink px-1 font-bold text-[13px] aria-pressed:bg-ink aria-pressed:text-sheet"
                    onClick={() => onPick(cluster.block)}
                  >
                    {numberOf(cluster.block)}
                  </button>
                </td>
                <td className="py-1">
                  <select
                    aria-label={`How large cluster ${numberOf(cluster.block)} is`}
                    className="field px-1.5 py-0.5"
                    disabled={!mayChange}
                    value={cluster.size}
                    onChange={(e) => onSize(cluster, e.target.value)}
                  >
                    <option value="large">large</option>
                    <option value="medium">medium</option>
                    <option value="small">small</option>
                  </select>
                </td>
                <td className="py-1 text-right tabular-nums">
                  {cluster.pieces.length === 1 ? "1 piece" : `${cluster.pieces.length} pieces`}
                </td>
              </tr>
            ))}
            <tr className="border-hairline border-t text-second">
              <td colSpan={2} className="py-1">
                together
              </td>
              <td className="py-1 text-right tabular-nums">{together}</td>
            </tr>
          </tbody>
        </table>
      )}
      {failed && <Failed error={failed} />}
      {mayChange && clusters.length > 0 && (
        <div className="flex flex-wrap gap-2">
          <button type="button" className="button" disabled={sharing} onClick={onShare}>
            Share out
          </button>
          <button type="button" className="button" disabled={together === 0} onClick={onShuffle}>
            Shuffle
          </button>
        </div>
      )}
      {mayChange && clusters.length > 0 && (
        <p className="text-[13px] text-second">
          {together > 0
            ? `Shares these ${together} out anew: by size, alike in each, the largest by the main photo.`
            : "Chooses a few pieces out of the stash and shares them out."}
        </p>
      )}
    </section>
  );
}
