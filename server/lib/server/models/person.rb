# frozen_string_literal: true

require "bcrypt"

module Server
  # Somebody with an account.
  class Person < Record
    self.table_name = "people"

    ROLES = %w[look grade deliver administer].freeze # each may do what those before it may
    SHORTEST = 10 # characters of a password
    LONGEST = 72 # bytes of it; bcrypt takes no more
    # Compared with where there is no such person, so that the time it takes says nothing.
    NOBODY = BCrypt::Password.create(SecureRandom.hex).to_s

    has_many :sign_ins

    LOOK_EVERY = 1 # seconds between looks whether there are accounts

    # @return [Boolean] whether anybody has to sign in: as soon as there is one account
    def self.asked?
      now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      return @asked if @looked && now - @looked < LOOK_EVERY

      # others who ask meanwhile look for themselves, and are never told what nobody knows yet
      @asked = exists?
      @looked = now
      @asked
    end

    # The same as far as this process has heard; for what must not wait for the database.
    def self.known_to_be_asked? = @asked == true

    # What this process has heard of it.
    def self.forget = @asked = @looked = nil

    # @return [Person] by name, in any letter case
    # @raise [Missing]
    def self.named(name) = find_by("lower(name) = lower(?)", name.to_s.strip) || raise(Missing, "there is no account #{name}")

    # @param values [Hash] name, role, password, initials
    # @return [Person]
    # @raise [Mordant::ParameterError]
    def self.made(values)
      name = values["name"].to_s.strip
      unless name.match?(/\A[[[:print:]]&&[^\p{Cf}]]{1,60}\z/) && !exists?(["lower(name) = lower(?)", name])
        raise Mordant::ParameterError.new(path: "name", expected: "1 to 60 characters that no account has yet", found: values["name"])
      end
      role = checked_role(values["role"])
      transaction do
        connection.execute("LOCK TABLE people IN SHARE ROW EXCLUSIVE MODE")
        raise Mordant::ParameterError.new(path: "role", expected: "administer for the first account, as somebody has to make the others", found: role) unless role == ROLES.last || exists?(role: ROLES.last, ended: false)

        create!(name:, role:, initials: checked_initials(values["initials"], name), secret: secret_of(values["password"])).tap { forget }
      end
    end

    # @param password [String]
    # @return [Person, nil] whose name and password these are
    def self.known(name, password)
      found = find_by("lower(name) = lower(?) AND NOT ended", name.to_s.strip)
      right = BCrypt::Password.new(found&.secret || NOBODY) == password.to_s.byteslice(0, LONGEST)
      found if right
    end

    # @raise [Mordant::ParameterError]
    def self.checked_role(role)
      ROLES.include?(role) ? role : raise(Mordant::ParameterError.new(path: "role", expected: ROLES.join(", "), found: role))
    end

    # @param initials [String, nil] nil: those of the name
    def self.checked_initials(initials, name)
      text = (initials || name.split(/[\s-]+/).filter_map { |word| word[/[[:alnum:]]/] }.first(2).join).to_s.strip
      text = name[0, 2] if text.empty? && initials.nil?
      text.match?(/\A[[:print:]]{1,3}\z/) ? text : raise(Mordant::ParameterError.new(path: "initials", expected: "1 to 3 characters", found: initials))
    end

    # @return [String] as it is stored
    def self.secret_of(password)
      fits = password.is_a?(String) && password.length >= SHORTEST && password.bytesize <= LONGEST && !password.include?("\0")
      raise Mordant::ParameterError.new(path: "password", expected: "#{SHORTEST} characters or more, at most #{LONGEST} bytes", found: "another length") unless fits

      BCrypt::Password.create(password).to_s
    end

    # @param needed [String] one of ROLES
    def may?(needed) = ROLES.index(role) >= ROLES.index(needed)

    # Signs all browsers out where a password, a role or the account's end makes that wise.
    #
    # @param values [Hash] some of role, initials, password, ended
    # @raise [Mordant::ParameterError] also when nobody would be left who administers
    def change(values)
      fresh = {}
      fresh[:role] = Person.checked_role(values["role"]) if values.key?("role")
      fresh[:initials] = Person.checked_initials(values["initials"], name) if values.key?("initials")
      fresh[:secret] = Person.secret_of(values["password"]) if values.key?("password")
      fresh[:ended] = values["ended"] == true if values.key?("ended")
      transaction do
        self.class.connection.execute("LOCK TABLE people IN SHARE ROW EXCLUSIVE MODE")
        update!(fresh)
        raise Mordant::ParameterError.new(path: "role", expected: "one account at least that administers", found: "none left") unless Person.exists?(role: ROLES.last, ended: false)

        sign_ins.where.not(id: Present.sign_in&.id).delete_all if fresh.key?(:secret) || fresh[:ended]
        sign_ins.delete_all if fresh[:ended]
      end
      self
    end

    def to_h = {id:, name:, initials:, role:, ended:}
  end
end
