# frozen_string_literal: true

module Server
  # Cuts as they have been read, for requests that only look at them. One is used again for as long as nothing at all has been written
  # in the database since before it was read: what a transaction can see says so, whatever a cut is made of. None is used by two
  # requests at once.
  class ReadCuts
    MOST = 8
    # Which transactions are over, of a server since it was started; another one after each that has written anything.
    SEEN = "SELECT pg_current_snapshot()::text || ' ' || pg_postmaster_start_time()"
    private_constant :SEEN

    def self.current = (@current ||= new)

    def initialize
      @read = [] # what could be seen before, and the cut
      @turn = Mutex.new
    end

    # @param id [Integer, String]
    # @yieldparam cut [Cut] that nothing is written to
    # @return [Object] what the block returns
    # @raise [Record::Missing]
    def with(id)
      seen, cut = take(id)
      yield(cut).tap { give_back(seen, cut) }
    end

    private

    # @return [Array(String, Cut)] for one user alone, until it is given back; and what could be seen in the database before it was read,
    #   nil within a transaction, which sees its own writing as well
    # @raise [Record::Missing]
    def take(id)
      return [nil, Cut.fetch(id)] if Record.connection.transaction_open?

      seen = Record.connection.select_value(SEEN)
      [seen, kept(id.to_s, seen) || Cut.fetch(id)]
    end

    # Of those that are kept the first go.
    def give_back(seen, cut)
      return unless seen

      @turn.synchronize do
        @read << [seen, cut]
        @read.shift while @read.size > MOST
      end
    end

    # What is out of date goes.
    def kept(id, seen)
      cut = @turn.synchronize do
        @read.select! { |before, _| before == seen }
        at = @read.index { |_, one| one.id.to_s == id }
        @read.delete_at(at).last if at
      end
      cut&.anew
    end
  end
end
