-- Heads of the trail that were handed to others: each once to all receivers, and written to the file, once it was.
create table told_head (
  size bigint primary key references tree_head (size),
  at datetime(6) not null,
  line varchar(600) not null,
  written_at datetime(6) null,
  key (written_at)
);
grant select, insert, update on told_head to '${service_user}'@'127.0.0.1';
