import { useSearchParams } from "react-router";

/** Opens the drawer of a promotion over the page that one is on. */
export function usePromotion() {
  const [, setParams] = useSearchParams();
  return (component: string, version: string, environment: string) =>
    setParams((before) => {
      before.set("promote", `${component}:${version}:${environment}`);
      return before;
    });
}
