DROP TABLE IF EXISTS `keeper`;
/*!40101 SET NAMES utf8 */;
CREATE TABLE `keeper` (
  `id` int(11) unsigned NOT NULL AUTO_INCREMENT,
  `name` varchar(60) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL DEFAULT '' COMMENT 'the name; of it',
  `kind` enum('full','half','it''s') DEFAULT 'full',
  `active` tinyint(1) NOT NULL DEFAULT 1,
  `changed` datetime(3) DEFAULT CURRENT_TIMESTAMP(3) ON UPDATE CURRENT_TIMESTAMP(3),
  `born` year DEFAULT NULL,
  `life` mediumtext,
  `photo` blob,
  PRIMARY KEY (`id`) USING BTREE,
  UNIQUE KEY `uq_name` (`name`(20)),
  KEY `i_kind` (`kind`),
  FULLTEXT KEY `words` (`life`)
) ENGINE=InnoDB AUTO_INCREMENT=5 DEFAULT CHARSET=utf8mb4; # done
CREATE TABLE IF NOT EXISTS hive (
  hive_id bigint NOT NULL, keeper_id int unsigned,
  fee decimal(8,2) unsigned DEFAULT '0.00',
  share float(7,4), level double, small smallint unsigned, big bigint(20) unsigned, medium mediumint,
  PRIMARY KEY (hive_id),
  CONSTRAINT fk_keeper FOREIGN KEY fk_ix (keeper_id) REFERENCES keeper (id) ON DELETE CASCADE ON UPDATE RESTRICT,
  CONSTRAINT CHECK (fee >= 0)
);
CREATE TABLE visit (
  visit_id int NOT NULL PRIMARY KEY, hive_id bigint NOT NULL, `on` date NOT NULL, `begun` time(2), flags bit(1), mask bit(8),
  INDEX ix (hive_id), UNIQUE once (hive_id, `on`)
) COMMENT='the visits' PARTITION BY HASH (visit_id) PARTITIONS 4;
ALTER TABLE visit ADD CONSTRAINT `visit_hive` FOREIGN KEY (`hive_id`) REFERENCES `hive` (`hive_id`) ON DELETE NO ACTION, ADD KEY more (`on`);
ALTER TABLE visit ADD COLUMN note longtext AFTER begun;
ALTER TABLE `keeper` ADD UNIQUE INDEX `uq_born` (`born`, `kind`);
CREATE TABLE copy LIKE visit;
LOCK TABLES `keeper` WRITE;
INSERT INTO keeper (id) VALUES (1),(2);
UNLOCK TABLES;
