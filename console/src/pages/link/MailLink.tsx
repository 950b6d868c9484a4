import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, need } from "../../api/client";
import { me } from "../../api/queries";
import { Loading } from "../../design/parts";
import { TROUBLE } from "../../design/classes";

/** Where a mail's link leads: used up by the one it was sent to, it goes on to the page. It decides nothing. */
export default function MailLink() {
  const { token = "" } = useParams();
  const go = useNavigate();
  const who = useQuery(me());
  const use = useMutation({
    mutationFn: () => need(api.POST("/api/v1/links/{token}", { params: { path: { token } } })),
    onSuccess: (link) => go(link.path, { replace: true }),
  });
  const { mutate, isIdle } = use;
  useEffect(() => {
    if (who.data && isIdle) mutate();
  }, [who.data, isIdle, mutate]);
  if (!use.isError) return <Loading height={200} />;
  return (
    <div className={`${TROUBLE} sheet`} role="alert">
      <title>Link · Paseo</title>
      <h2>This link no longer works</h2>
      <p>{use.error.message}.</p>
      <p>
        <Link className="btn yes" to="/waiting">
          See what waits for you
        </Link>
      </p>
    </div>
  );
}
