/** The tape with the name alone, where there is nothing to go to yet. */
export function Brand() {
  return (
    <header className="border-ink border-b-2 bg-tape text-tape-ink">
      <div className="flex h-[46px] items-center gap-4 px-[18px]">
        <p className="font-bold font-heading text-[22px]">Metrosk</p>
        <h1 className="font-body font-normal text-[13px]">From a sketch to a measured page</h1>
      </div>
    </header>
  );
}
