# frozen_string_literal: true

module Server
  # Tries to sign in by one name or from one address. Each is counted before the password is
  # looked at, so that many at once are no way round it; after a few, each has to wait longer.
  class Try < Record
    self.table_name = "tries"
    self.primary_key = "key"

    FREE = {"name" => 4, "address" => 20}.freeze # before the first wait
    FIRST_WAIT = 2 # seconds; doubles with every try
    LONGEST_WAIT = 900
    FORGOTTEN = 3600 # seconds without another

    # Too many of them; answered with 429.
    class TooMany < Mordant::Error
      attr_reader :seconds

      def initialize(seconds)
        @seconds = seconds
        super("too many tries; wait #{seconds} s and try again")
      end
    end

    COUNT = <<~SQL
      INSERT INTO tries (key, count, since, again_at) VALUES (:key, 1, :now, :forgotten)
      ON CONFLICT (key) DO UPDATE SET
        count = CASE WHEN tries.since < :forgotten THEN 1 ELSE tries.count + 1 END,
        since = :now,
        again_at = CASE WHEN tries.since < :forgotten OR tries.count < :free THEN CAST(:forgotten AS timestamp)
                   ELSE CAST(:now AS timestamp) + make_interval(secs => LEAST(:longest, :first * power(2, LEAST(tries.count - :free, 20)))) END
      WHERE tries.again_at <= :now OR tries.since < :forgotten
      RETURNING count
    SQL
    private_constant :COUNT

    # @param keys [Hash{String => String}] "name" and "address" of the try
    # @raise [TooMany] and it is not counted
    def self.count(keys, now: Time.now.utc)
      keys.each do |kind, value|
        values = {key: key(kind, value), now:, forgotten: now - FORGOTTEN, free: FREE.fetch(kind), longest: LONGEST_WAIT, first: FIRST_WAIT}
        next unless connection.select_value(sanitize_sql([COUNT, values])).nil?

        raise TooMany, [(find_by(key: key(kind, value)).again_at - now).ceil, 1].max
      end
    end

    # After one that was right.
    def self.forget(keys)
      where(key: keys.map { |kind, value| key(kind, value) }).delete_all
      where(since: ..(Time.now - FORGOTTEN)).delete_all
    end

    def self.key(kind, value) = "#{kind} #{value.to_s.scrub("?").strip.downcase[0, 200]}"
  end
end
