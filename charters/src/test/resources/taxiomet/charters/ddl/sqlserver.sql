USE [coop]
GO
SET ANSI_NULLS ON
GO
CREATE TABLE [dbo].[Keeper](
	[KeeperId] [int] IDENTITY(1,1) NOT NULL,
	[Name] [nvarchar](60) COLLATE Latin1_General_CI_AS NULL,
	[Notes] [nvarchar](max) NULL, [Joined] datetime2(7) NOT NULL CONSTRAINT DF_j DEFAULT (getdate()), [Fee] money NULL,
	[Seen] datetimeoffset(3), [Day] smalldatetime, [Old] datetime, [Level] tinyint NOT NULL DEFAULT ((0)), [Code] char(3), [Raw] varbinary(max),
	[Full] AS ([Name] + 'x') PERSISTED,
 CONSTRAINT [PK_Keeper] PRIMARY KEY CLUSTERED ([KeeperId] ASC) WITH (PAD_INDEX = OFF, FILLFACTOR = 90) ON [PRIMARY]
) ON [PRIMARY] TEXTIMAGE_ON [PRIMARY]
GO
CREATE TABLE dbo.Hive (HiveId uniqueidentifier NOT NULL PRIMARY KEY NONCLUSTERED ROWGUIDCOL DEFAULT (newid()), KeeperId int NOT NULL, Active bit DEFAULT ((1)), Share real, Weight float(53),
  Season smallint NOT NULL UNIQUE)
GO
ALTER TABLE [dbo].[Hive]  WITH CHECK ADD  CONSTRAINT [FK_Hive_Keeper] FOREIGN KEY([KeeperId]) REFERENCES [dbo].[Keeper] ([KeeperId]) ON DELETE CASCADE
GO
ALTER TABLE [dbo].[Hive] CHECK CONSTRAINT [FK_Hive_Keeper]
GO
CREATE UNIQUE NONCLUSTERED INDEX [UQ_Name] ON [dbo].[Keeper]([Name] ASC) WITH (ONLINE = ON)
GO
CREATE TABLE Visit (HiveId uniqueidentifier NOT NULL, No int NOT NULL, [On] date NOT NULL, Note nvarchar(200) SPARSE NULL,
  CONSTRAINT PK_Visit PRIMARY KEY (HiveId, No), CONSTRAINT CK_No CHECK NOT FOR REPLICATION ([No] > 0))
GO
ALTER TABLE Visit ADD Rain decimal(5, 1) NULL, Wind int CONSTRAINT FK_w REFERENCES Keeper (KeeperId)
GO
ALTER TABLE Visit WITH NOCHECK ADD FOREIGN KEY (HiveId) REFERENCES Hive (HiveId) ON UPDATE CASCADE NOT FOR REPLICATION
GO
ALTER TABLE Visit ADD CONSTRAINT CK_Rain CHECK (Rain >= 0), CONSTRAINT UQ_On UNIQUE NONCLUSTERED ([On], Note)
GO
PRINT 'done'
GO
