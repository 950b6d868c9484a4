-- The lead time of each promotion, and where it went, in seconds. Made out of runs and deployments, and can be
-- made anew out of them.
create table lead_time (
  deployment_id bigint primary key references deployment (id),
  component_id bigint not null references component (id),
  environment_id bigint not null references environment (id),
  live_at datetime(6) not null,
  turn bigint not null,
  agents bigint not null,
  building bigint not null,
  before_it bigint not null,
  people bigint not null,
  waiting_time bigint not null,
  deploying bigint not null,
  bad_for bigint null,
  key (live_at), key (component_id, live_at), key (environment_id, live_at)
);
grant select, insert, update, delete on lead_time to '${service_user}'@'127.0.0.1';
insert into effect (aggregate, idempotency_key, kind, body, format, due_at, deadline)
  select concat('pace ', id), concat('pace ', id), 'pace', concat(id), 1, utc_timestamp(6),
    date_add(utc_timestamp(6), interval 1 day) from deployment where live_at is not null;
