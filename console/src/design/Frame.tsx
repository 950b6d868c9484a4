import { useQuery, useQueryClient } from "@tanstack/react-query";
import { BookOpen, CircleHelp, CircleUserRound, Library, LogOut, Moon, Search, Sun } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { lazy, Suspense, useEffect, useRef, useState, type ReactNode } from "react";
import { Link, Outlet, useLocation, useNavigate, useNavigation, useSearchParams } from "react-router";
import { api, need } from "../api/client";
import { useLive } from "../api/live";
import { useMay } from "../api/may";
import { me, waitingCount } from "../api/queries";
import { useSessionEnded } from "../api/session";
import { useTellInBrowser } from "../api/tell";
import { Keys, useKeys } from "../palette/Keys";
import { GroundLine } from "./GroundLine";
import { Loading } from "./parts";
import { flipTheme, useTheme } from "./theme";

const RAIL = "relative flex items-center h-[var(--rail)] py-0 px-[var(--gutter)] overflow-hidden";
const RAIL_LINK =
  "relative flex items-center pt-0 px-3.25 pb-2.25 text-ink-2 no-underline font-medium hover:text-ink " +
  "aria-[current]:text-ink aria-[current]:font-[640] max-[720px]:pt-0 max-[720px]:px-1.5 max-[720px]:pb-2.25";
const TOOLS = "ml-auto flex items-center gap-1 relative -top-1 z-1 max-[720px]:gap-0";
const BRAND =
  "flex items-center gap-2.25 font-[680] font-stretch-[122%] text-[17px] no-underline mr-9 relative -top-1 " +
  "max-[720px]:mr-2 max-[720px]:[&_span]:hidden";
const COUNT =
  "ml-1.5 min-w-4.5 px-1.25 rounded-[9px] bg-need text-on-need text-[12px] leading-[18px] font-[680] text-center";
const MENU = "min-w-45 p-1.5 bg-raised border border-line rounded-[var(--r-2)] [box-shadow:var(--shade-3)] z-20";
const MENU_ITEM =
  "flex items-center gap-2 px-2 py-1.5 rounded-[var(--r-1)] text-[13px] cursor-pointer data-highlighted:bg-slab " +
  "data-highlighted:[outline:none]";

const Palette = lazy(() => import("../palette/Palette"));
const SignInAgain = lazy(() => import("../pages/sign-in/SignInAgain"));
const Help = lazy(() => import("../help/Help"));
const Promotion = lazy(() => import("../pages/promotion/Promotion"));

const Mark = () => (
  <svg
    width={30}
    height={22}
    viewBox="0 0 30 22"
    fill="none"
    stroke="currentColor"
    strokeWidth={2.6}
    strokeLinecap="round"
    aria-hidden="true"
  >
    <path d="M2 11h26" strokeDasharray="0 5.2" opacity={0.55} />
    <path d="M2 11h10M15 1.8l7 3.2M15 20.2l7-3.2" />
    <circle cx={15} cy={1.9} r={1.9} fill="currentColor" stroke="none" />
    <circle cx={15} cy={20.1} r={1.9} fill="currentColor" stroke="none" />
  </svg>
);

/** A page of the rail; it stays current on the pages that are reached from it. */
function RailLink({ to, also, children }: { to: string; also: string[]; children: ReactNode }) {
  const { pathname } = useLocation();
  const current = pathname === to || also.some((path) => pathname.startsWith(path));
  const link = useRef<HTMLAnchorElement>(null);
  useEffect(() => {
    // Where the words do not all fit, the one of this page is seen.
    const words = link.current?.parentElement;
    if (current && link.current && words) words.scrollLeft = link.current.offsetLeft - words.offsetLeft - 40;
  }, [current]);
  return (
    <Link ref={link} to={to} className={RAIL_LINK} aria-current={current ? "page" : undefined}>
      {children}
    </Link>
  );
}

function Rail({ onFind, onHelp }: { onFind: () => void; onHelp: () => void }) {
  const theme = useTheme();
  const needs = useQuery({ ...waitingCount(), enabled: useMay()("LOOK") }).data?.count ?? 0;
  return (
    <header className={`rail ${RAIL} print:hidden`}>
      <Link to="/" className={BRAND} aria-label="Paseo, whereabouts">
        <Mark />
        <span>paseo</span>
      </Link>
      <nav
        aria-label="Pages"
        className="z-1 flex min-w-0 self-stretch max-[720px]:overflow-x-auto [scrollbar-width:none]"
      >
        <RailLink to="/" also={["/deployments", "/places/", "/environments"]}>
          Whereabouts
        </RailLink>
        <RailLink to="/waiting" also={["/passages/", "/link/"]}>
          Waiting
          {needs > 0 && (
            <b className={COUNT} aria-label={`${needs} need you`}>
              {needs}
            </b>
          )}
        </RailLink>
        <RailLink to="/components" also={["/components/", "/bring-in", "/runs", "/versions"]}>
          Components
        </RailLink>
        <RailLink to="/sets" also={["/sets/"]}>
          Sets
        </RailLink>
        <RailLink to="/chain" also={["/events"]}>
          Chain
        </RailLink>
        <RailLink to="/history" also={["/pace", "/audit", "/origins", "/packages"]}>
          History
        </RailLink>
        <RailLink to="/settings/yours" also={["/settings"]}>
          Settings
        </RailLink>
      </nav>
      <div className={TOOLS}>
        <button
          type="button"
          className="icon"
          onClick={onFind}
          aria-label="Find anything"
          title="Find anything: Ctrl or ⌘ K"
        >
          <Search size={17} />
        </button>
        <button type="button" className="icon" onClick={onHelp} aria-label="Help" title="Help on this page">
          <CircleHelp size={17} />
        </button>
        <button
          type="button"
          className="icon"
          onClick={flipTheme}
          aria-label={theme === "dark" ? "Light theme" : "Dark theme"}
        >
          {theme === "dark" ? <Sun size={17} /> : <Moon size={17} />}
        </button>
        <Who />
      </div>
    </header>
  );
}

function Who() {
  const who = useQuery(me());
  const client = useQueryClient();
  const navigate = useNavigate();
  const leave = async () => {
    await need(api.DELETE("/api/v1/session"));
    await navigate("/sign-in");
    client.clear();
  };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        className="icon max-[720px]:[&_span]:hidden"
        aria-label={`Signed in as ${who.data?.name ?? "…"}`}
      >
        <CircleUserRound size={17} />
        <span>{who.data?.name}</span>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className={MENU} align="end" sideOffset={6}>
          <DropdownMenu.Label className="px-2 py-1 text-[12px] text-ink-3">
            {who.data?.groups.length ? `in ${who.data.groups.join(", ")}` : "in no group"}
          </DropdownMenu.Label>
          <DropdownMenu.Item className={MENU_ITEM} asChild>
            <Link to="/docs">
              <Library size={15} />
              The docs
            </Link>
          </DropdownMenu.Item>
          <DropdownMenu.Item className={MENU_ITEM} asChild>
            <Link to="/api">
              <BookOpen size={15} />
              The API
            </Link>
          </DropdownMenu.Item>
          <DropdownMenu.Item className={MENU_ITEM} onSelect={() => void leave()}>
            <LogOut size={15} />
            Sign out
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** The page that is open; for whoever may see nothing, what that means and who changes it. */
function Page() {
  const who = useQuery(me());
  const may = useMay();
  const { pathname } = useLocation();
  const page = (
    <Suspense fallback={<Loading height={480} />}>
      <Outlet />
    </Suspense>
  );
  if (who.isPending) return <Loading height={480} />;
  if (!who.data || may("LOOK") || /^\/(settings(\/yours)?|api|docs\/?.*|link\/.*)$/.test(pathname)) return page;
  return (
    <section className="sheet">
      <h1>You may not see anything yet</h1>
      <p>
        Your account {who.data.name} has no role. Whoever may manage accounts gives you one under Settings, Accounts;
        this page shows the rest as soon as it is loaded anew.
      </p>
      <p>
        <Link to="/settings/yours">Your password and tokens</Link>
      </p>
    </section>
  );
}

const BUSY =
  "fixed top-[49px] left-1/2 z-40 m-0 -translate-x-1/2 rounded-b bg-ink px-3 text-[12px] text-ground print:hidden";
const SOON = 400;

/** What takes longer than one would notice; what is quick never shows. */
function useSlow(now: boolean): boolean {
  const [slow, setSlow] = useState(false);
  useEffect(() => {
    if (!now) return;
    const timer = setTimeout(() => setSlow(true), SOON);
    return () => {
      clearTimeout(timer);
      setSlow(false);
    };
  }, [now]);
  return slow;
}

/** What is around every page: the rail above, the ground line below. */
export function Frame() {
  const may = useMay();
  const live = useLive(may("LOOK"));
  const ended = useSessionEnded();
  useTellInBrowser();
  const [helped, setHelped] = useState(false);
  const [params] = useSearchParams();
  const { finding, help, setFinding, setHelp } = useKeys();
  const busy = useSlow(useNavigation().state !== "idle");
  return (
    <>
      <Rail onFind={() => setFinding(true)} onHelp={() => setHelped(!helped)} />
      <main aria-busy={busy}>
        {busy && (
          <p role="status" className={BUSY}>
            Loading the page…
          </p>
        )}
        <Page />
      </main>
      {may("LOOK") && <GroundLine {...live} />}
      {finding && (
        <Suspense fallback={null}>
          <Palette onClose={() => setFinding(false)} />
        </Suspense>
      )}
      {helped && (
        <Suspense fallback={null}>
          <Help onClose={() => setHelped(false)} />
        </Suspense>
      )}
      {ended && (
        <Suspense fallback={null}>
          <SignInAgain />
        </Suspense>
      )}
      {help && <Keys onClose={() => setHelp(false)} />}
      {params.has("promote") && (
        <Suspense fallback={null}>
          <Promotion />
        </Suspense>
      )}
    </>
  );
}
