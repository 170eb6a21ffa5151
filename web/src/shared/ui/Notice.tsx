/** Something that is being fetched, or is empty: in words, where it will stand. */
export function Notice({ children }: { children: React.ReactNode }) {
  return (
    <p role="status" className="rounded-[3px] border border-hairline border-dashed p-4 text-second">
      {children}
    </p>
  );
}
