import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api } from "@/api/client";
import { LinkToSend } from "@/features/people/Invites";
import { CloseSheet, Sheet } from "@/shared/ui/Sheet";

/** Her dates at an address of her own, for her calendar to fetch; it can be taken back. */
export function MyCalendar({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient();
  const feed = useQuery({ queryKey: ["feed"], queryFn: api.feed });
  const refresh = () => queries.invalidateQueries({ queryKey: ["feed"] });
  const make = useMutation({ mutationFn: api.makeFeed, onSuccess: refresh });
  const drop = useMutation({
    mutationFn: api.dropFeed,
    onSuccess: () => {
      make.reset();
      refresh();
    },
  });
  const since = feed.data?.made_at;
  const path = make.data?.path;
  const error = feed.error ?? make.error ?? drop.error;
  return (
    <Sheet
      title="Dates to my calendar"
      about="An address that your own calendar fetches by itself: what you have taken, with a reminder three days before, and what nobody has yet. Whoever knows the address can read these dates."
      width="middle"
      onClose={onClose}
    >
      <div className="mt-3 grid gap-3">
        {path && (
          <LinkToSend
            says="Subscribe to this address in your calendar. It is shown only now:"
            link={window.location.origin + path}
          />
        )}
        {!path && since && (
          <p>
            You have an address since {new Date(since).toLocaleDateString("en-GB", { dateStyle: "long" })}. If you have
            lost it, make a new one; the old one then works no longer.
          </p>
        )}
        {error && (
          <p role="alert" className="text-measure">
            {error.message}
          </p>
        )}
        <div className="flex flex-wrap gap-2">
          <button
            type="button"
            className={`button ${since ? "" : "button-first"}`}
            disabled={make.isPending}
            onClick={() => make.mutate()}
          >
            {since ? "Make a new address" : "Make an address"}
          </button>
          {since && (
            <button type="button" className="button" disabled={drop.isPending} onClick={() => drop.mutate()}>
              Take the address back
            </button>
          )}
          <CloseSheet className="ml-auto" />
        </div>
      </div>
    </Sheet>
  );
}
