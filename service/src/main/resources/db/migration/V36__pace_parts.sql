-- Lead times begin with the commit's own time, say apart what was waited for after people had decided, and whom they
-- were waited for. What was kept is made anew.
alter table run add column committed_at datetime(6) null;
alter table lead_time add column committed bigint not null default 0, add column closed bigint not null default 0,
  add column held bigint not null default 0, add column queue bigint not null default 0;
create table lead_time_people (
  deployment_id bigint not null references lead_time (deployment_id) on delete cascade,
  asked varchar(300) not null,
  seconds bigint not null,
  primary key (deployment_id, asked)
);
grant select, insert, update, delete on lead_time_people to '${service_user}'@'127.0.0.1';
insert into effect (aggregate, idempotency_key, kind, body, format, due_at, deadline)
  select concat('pace ', deployment_id), concat('pace anew ', deployment_id), 'pace', concat(deployment_id), 1,
    utc_timestamp(6), date_add(utc_timestamp(6), interval 1 day) from lead_time;
