-- Whereabouts: what is open and what began last are looked up, and hosts are counted when they change.
alter table deployment add key (status, place_id), add key (place_id, started_at);
alter table environment add column hosts int not null default 0;
update environment e set e.hosts = (select count(distinct ph.host_id) from place p join place_host ph on ph.place_id = p.id where p.environment_id = e.id);

-- Which replica told it: its own agents and workers were woken as it committed.
alter table live_event add column replica varchar(36) not null default '';
