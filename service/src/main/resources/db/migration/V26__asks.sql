-- What somebody who may not do it oneself asked of those who may; one open ask of each kind for each account.
create table ask (
  id bigint auto_increment primary key,
  account_id bigint not null references account (id),
  act varchar(12) not null,
  place_id bigint not null references place (id),
  version_id bigint null references version (id),
  words varchar(1000) not null,
  at datetime(6) not null,
  outcome varchar(12) null,
  answer varchar(1000) null,
  answered_by bigint null references account (id),
  deployment_id bigint null references deployment (id),
  ended_at datetime(6) null,
  open_ask varchar(80) as (if(ended_at is null, concat(account_id, ' ', act, ' ', place_id, ' ', coalesce(version_id, 0)),
    null)) virtual,
  unique one_open (open_ask), key (account_id, id), key (ended_at)
);
grant select, insert, update on ask to '${service_user}'@'127.0.0.1';
