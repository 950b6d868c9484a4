-- What somebody wants to be told of: a component, an environment or a deployment, by its id.
create table following (
  account_id bigint not null references account (id),
  what varchar(12) not null,
  thing_id bigint not null,
  primary key (account_id, what, thing_id),
  key (what, thing_id)
);
grant select, insert, delete on following to '${service_user}'@'127.0.0.1';
