-- Hosts of which nobody knows what they have, since which deployment; until somebody has looked.
create table host_doubt (
  place_id bigint not null references place (id),
  host_id bigint not null references host (id),
  deployment_id bigint not null references deployment (id),
  since_at datetime(6) not null,
  primary key (place_id, host_id)
);
grant select, insert, update, delete on host_doubt to '${service_user}'@'127.0.0.1';
