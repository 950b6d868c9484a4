-- Labels of components: what they are grouped and found by.
create table component_label (
  component_id bigint not null references component (id),
  name varchar(63) not null,
  value varchar(120) not null,
  primary key (component_id, name)
);
grant select, insert, update, delete on component_label to '${service_user}'@'127.0.0.1';

-- How soon somebody is told may be chosen for one component; '' is for all of them.
alter table notice_choice add column component varchar(63) not null default '', drop primary key, add primary key (account_id, event, channel, component);
