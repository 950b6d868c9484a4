/** The release record of a deployment, a promotion or a period, as a page, as PDF and as JSON. */
export function RecordLinks({ of }: { of: string }) {
  return (
    <>
      <a href={`/api/v1/release-records/page?${of}`}>release record</a> (
      <a href={`/api/v1/release-records/pdf?${of}`}>PDF</a>,{" "}
      <a href={`/api/v1/release-records?${of}`} download="release-record.json">
        JSON
      </a>
      )
    </>
  );
}
