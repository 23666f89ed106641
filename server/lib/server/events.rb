# frozen_string_literal: true

module Server
  # Tells browsers the progress of long work and what is wrong, as server-sent events (WHATWG
  # HTML, 9.2).
  #
  # A browser has one stream for all its windows. Streams hold no thread of the web server: one
  # thread of each process looks at the work now and then, and writes to all streams what they
  # have not heard.
  class Events
    MOST = 64 # streams of a process
    MOST_OF_ONE = 12 # of those by one sign-in, so that nobody takes them all
    LOOK_EVERY = 0.3 # seconds
    BEAT_EVERY = 15 # seconds between signs of life
    AGAIN = 500 # ms, after which a browser that has lost its stream asks for another
    RECENT = 50

    # There are as many streams as this process has.
    class TooMany < StandardError
      def initialize = super("as many browsers as can be are looking at this server; close one, and this one goes on by itself")
    end

    # Of a process.
    def self.current = @current ||= new

    # @param kind [String] of event
    # @param project [Integer, nil]
    # @return [String] as it is sent
    def self.told(kind, project, of) = "event: #{kind}\ndata: #{{project:, of:}.to_json}\n\n"

    # @param most [Integer] streams
    def initialize(most: MOST)
      @most = most
      @lock = Mutex.new
      @streams = []
    end

    # @param sign_in [Integer, nil] by which it would be
    # @raise [TooMany] when another stream cannot be had
    def make_room(sign_in = nil)
      all, own = @lock.synchronize { [@streams.size, sign_in ? @streams.count { |one| one.sign_in == sign_in } : 0] }
      raise TooMany if all >= @most || own >= MOST_OF_ONE
    end

    # @param io [IO] of the browser, after the head of the answer; closed when it leaves
    # @param projects [Array<Integer>] whose work it is to hear of
    # @param sign_in [Integer, nil] by which it may; the stream ends with it
    def follow(io, projects, sign_in: nil)
      @lock.synchronize do
        @streams << Stream.new(io, projects, sign_in)
        @thread = Thread.new { run } unless @thread&.alive? # one that an error has ended is not the last
      end
    end

    # @return [Integer] streams
    def size = @lock.synchronize { @streams.size }

    private

    def run
      sleep LOOK_EVERY while look
    end

    # @return [Boolean] whether there is anybody left
    def look
      streams = @lock.synchronize { @streams.dup }
      heard = state(streams.flat_map(&:projects).uniq)
      out = signed_out(streams)
      gone = streams.reject { |stream| out.include?(stream.sign_in) ? stream.close : stream.tell(heard) }
      @lock.synchronize do
        @streams -= gone
        @thread = nil if @streams.empty?
        !@thread.nil?
      end
    end

    # @return [Array<Integer>] sign-ins of streams that have ended
    def signed_out(streams)
      ids = streams.filter_map(&:sign_in).uniq
      return [] if ids.empty?

      ids - ActiveRecord::Base.connection_pool.with_connection { SignIn.live.where(id: ids).pluck(:id) }
    rescue *Trouble::KINDS
      [] # no database: nothing is told either, see #state
    end

    # @return [Hash{Array(String, Integer, Integer) => Object}] by kind, project and id
    def state(projects)
      work = projects.map { |project| Events.work(project) }.reduce({}, :merge)
      work.merge(Events.together(projects), %w[trouble] => {words: nil})
    rescue *Trouble::KINDS => e
      {%w[trouble] => {words: Trouble.of(e) || Trouble.unknown(e)}}
    end

    class << self
      # @param projects [Array<Integer>]
      # @return [Hash{Array => Hash}] likewise, see Together
      def together(projects) = ActiveRecord::Base.connection_pool.with_connection { ActiveRecord::Base.uncached { Together.state(projects) } }

      # @param project [Integer]
      # @return [Hash{Array => Hash}] by kind, project and id, what screens show of its long work
      def work(project)
        ActiveRecord::Base.connection_pool.with_connection do
          ActiveRecord::Base.uncached do
            {"intake" => intakes(project), "range" => renders(project), "output" => outputs(project), "errand" => errands(project), "calibration" => calibrations}
              .flat_map { |kind, all| all.map { |one| [[kind, project, one[:id]], one] } }.to_h
          end
        end
      end

      private

      def intakes(project) = Intake.where(project:).order(id: :desc).limit(5).map(&:to_h)

      def renders(project) = RangeRender.joins(:cut).where(cuts: {project_id: project}).order(id: :desc).limit(3).map(&:to_h)

      def errands(project) = Errand.joins(:cut).where(cuts: {project_id: project}).order(id: :desc).limit(12).map(&:to_h)

      # Screens are everybody's.
      def calibrations = Calibration.told.limit(4).map(&:to_h)

      def outputs(project)
        Output.joins(order: :cut).includes(order: {cut: :project}).where(cuts: {project_id: project}).order(id: :desc).limit(RECENT)
          .map { |one| one.to_h.except(:seconds) }
      end
    end

    # One browser's.
    class Stream
      MOST_WAITING = 4 * 1024 * 1024 # bytes; whoever takes so little is let go

      attr_reader :projects, :sign_in

      def initialize(io, projects, sign_in = nil)
        @io, @projects, @sign_in = io, projects, sign_in
        @heard, @beat = {}, Time.now
        @waiting = "retry: #{AGAIN}\n\n".b
      end

      # @param state [Hash] see Events#state
      # @return [Boolean] whether the browser is still there
      def tell(state)
        state.each { |key, of| add(key, of) if wants?(key) && @heard[key] != of }
        add_beat
        return true if @waiting.bytesize <= MOST_WAITING && !left? && write

        close
      end

      # @return [false]
      def close
        @io.close
        false
      rescue SystemCallError, IOError
        false
      end

      private

      def wants?(key) = key[1].nil? || @projects.include?(key[1])

      def add(key, of)
        @heard[key] = of
        @waiting << Events.told(key[0], key[1], of).b
      end

      def add_beat
        return if Time.now - @beat < BEAT_EVERY

        @beat = Time.now
        @waiting << ": here\n\n"
      end

      def left? = @io.read_nonblock(1024, exception: false).nil?

      def write
        until @waiting.empty?
          sent = @io.write_nonblock(@waiting, exception: false)
          return true if sent == :wait_writable

          @waiting = @waiting.byteslice(sent..)
        end
        true
      rescue SystemCallError, IOError
        false
      end
    end
  end
end
